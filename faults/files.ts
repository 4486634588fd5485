/** Mutated files and documents through every reader, and on through playing and writing. */
import { readMidiFile } from '../core/midi/read/readMidi';
import { readdirSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import { readBeat } from '../core/document/file';
import { writeBeat } from '../core/document/text';
import { HOW_DEFAULTS, WHAT_DEFAULTS } from '../core/export/choice';
import { exported } from '../core/export/exporting';
import { measureSwing } from '../core/analysis/measure';
import { findGrid, extractTemplate } from '../core/analysis/extractTemplate';
import { readTemplate } from '../core/feel/templateFile';
import { bringIn } from '../core/bring/bring';
import { grooveOfFile } from '../core/groove/importing';
import { readFavourites } from '../core/groove/favouritesFile';
import { GENERAL_MIDI } from '../core/midi/drumMap/drumMap';
import { readDrumMap } from '../core/midi/drumMap/drumMapFile';
import { inspectMidi } from '../core/midi/read/inspect';
import { performanceOf } from '../core/midi/read/midiFile';
import { patternPerformance } from '../core/analysis/patternPerformance';
import { beatFromMidi } from '../core/bring/beatFromMidi';
import { newBeat } from '../core/document/defaults';
import type { Beat } from '../core/document/schema';
import { DEMO_BEATS } from '../demo/beats';
import type { Tried } from './report';

/** So long one file may take, in ms, on a machine that does nothing else. */
const LONGEST = 100;

/** Whole numbers below a bound, the same at each run. */
export const randoms = (seed: number) => {
  let now = seed >>> 0;
  return (below: number): number => {
    now = (Math.imul(now, 1664525) + 1013904223) >>> 0;
    return Math.floor((now / 4294967296) * below);
  };
};

const filesIn = (folder: string): string[] =>
  readdirSync(folder).flatMap((name) => {
    const place = path.join(folder, name);
    return statSync(place).isDirectory() ? filesIn(place) : /\.midi?$/i.test(name) ? [place] : [];
  });

/** Changes a few bytes, cuts some out, doubles some, or writes large numbers where small ones stood. */
const mutated = (bytes: Uint8Array, random: (below: number) => number): Uint8Array => {
  let out = Uint8Array.from(bytes);
  for (let times = 1 + random(6); times > 0; times--) {
    const at = random(out.length);
    const way = random(6);
    if (way === 0) out[at] = random(256);
    else if (way === 1) out[at] = 0xff;
    else if (way === 2) out = out.slice(0, Math.max(1, at));
    else if (way === 3) out = Uint8Array.from([...out.slice(0, at), ...out.slice(at + 1 + random(8))]);
    else if (way === 4)
      out = Uint8Array.from([...out.slice(0, at), ...out.slice(at, at + random(40)), ...out.slice(at)]);
    else for (let n = 0; n < 4 && at + n < out.length; n++) out[at + n] = n < 3 ? 0xff : 0x7f;
    if (!out.length) out = Uint8Array.from([0]);
  }
  return out;
};

/** A beat that was accepted plays, is measured, and is written in every way. */
export const works = (beat: Beat): void => {
  const again = readBeat(writeBeat(beat));
  if (!again.ok) throw new Error(`it is not read again: ${again.error}`);
  const pattern = beat.patterns[0]!;
  const { notes } = patternPerformance(beat, pattern, 1);
  if (notes.some(({ at, velocity }) => !Number.isFinite(at) || !(velocity >= 1 && velocity <= 127)))
    throw new Error('it plays notes that are none');
  for (const kind of ['midi', 'paper', 'tab', 'list'] as const) {
    const out = exported(beat, { ...HOW_DEFAULTS, kind }, { ...WHAT_DEFAULTS, patternId: pattern.id });
    if (!out.ok && /undefined|NaN|object Object/.test(out.error)) throw new Error(out.error);
  }
};

export const READERS: Record<string, (bytes: Uint8Array) => (() => void) | undefined> = {
  inspect: (bytes) => {
    inspectMidi(bytes);
    return undefined;
  },
  groove: (bytes) => {
    const read = grooveOfFile(bytes, { path: 'x.mid', source: 'imported', map: GENERAL_MIDI });
    if (!read.ok) return undefined;
    return () => {
      const { beat } = bringIn(newBeat('b', 'B', 1), read.groove, { how: 'new', id: 'n', name: 'N' });
      works({ ...beat, patterns: beat.patterns.slice(-1) });
    };
  },
  beat: (bytes) => {
    const read = beatFromMidi(bytes, 'x', 'b', 1);
    return read.ok ? () => works(read.value.beat) : undefined;
  },
  template: (bytes) => {
    const read = readMidiFile(bytes);
    if (!read.ok || !read.value.notes.length) return undefined;
    const played = performanceOf(read.value);
    measureSwing(played);
    const grid = findGrid(played);
    extractTemplate('x', played, { grid, length: Math.min(played.length, 64 * 960) });
    return undefined;
  },
};

/** What is read is timed; what is then done with it is to be done without a fault. */
export const tryOne = (
  faults: string[],
  name: string,
  reader: string,
  read: () => (() => void) | undefined,
  longest = LONGEST,
): void => {
  const timed = () => {
    const from = performance.now();
    const then = read();
    return { took: performance.now() - from, then };
  };
  try {
    const { took, then } = timed();
    then?.();
    // Measured again where it was slow: another program may have been at work.
    const again = took > longest ? timed().took : took;
    if (again > longest) faults.push(`${name}, ${reader}: ${again.toFixed(0)} ms`);
  } catch (fault) {
    faults.push(`${name}, ${reader}: ${(fault as Error).message.slice(0, 160)}`);
  }
};

/** @param longest how long reading one file may take, in ms */
export const midiFiles = (count: number, seed = 1, longest = LONGEST): Tried => {
  const random = randoms(seed);
  const files = filesIn(path.join(__dirname, '..', 'demo', 'grooves')).map((place) => readFileSync(place));
  const kept = filesIn(path.join(__dirname, 'kept'));
  const faults: string[] = [];
  for (const place of kept)
    for (const [reader, read] of Object.entries(READERS))
      tryOne(faults, path.basename(place), reader, () => read(new Uint8Array(readFileSync(place))), longest);
  for (let at = 0; at < count; at++) {
    const bytes = mutated(files[random(files.length)]!, random);
    const [reader, read] = Object.entries(READERS)[at % 4]!;
    tryOne(faults, `file ${at}`, reader, () => read(bytes), longest);
  }
  return { what: 'mutated MIDI files, each through a reader and on', tried: count + kept.length * 4, faults };
};

/** Words that are the code's and no person's. */
const CODE = /expected|received|\[object|undefined|Invalid/;

const JUNK = [
  null,
  -1,
  0,
  1e9,
  1e308,
  '',
  'x'.repeat(200),
  'constructor',
  '__proto__',
  [],
  {},
  true,
  0.5,
  [[[]]],
];

/** Puts junk in a place of a document, takes a place out, or doubles one. */
const changed = (value: unknown, random: (below: number) => number): unknown => {
  if (typeof value !== 'object' || value === null || random(6) === 0) return JUNK[random(JUNK.length)];
  if (Array.isArray(value)) {
    if (!value.length) return [JUNK[random(JUNK.length)]];
    const at = random(value.length);
    const way = random(4);
    if (way === 0) return value.filter((_, index) => index !== at);
    if (way === 1) return [...(value as unknown[]), (value as unknown[])[at]];
    return value.map((one: unknown, index) => (index === at ? changed(one, random) : one));
  }
  const keys = Object.keys(value);
  if (!keys.length) return { constructor: 1 };
  const key = keys[random(keys.length)]!;
  const { [key]: one, ...rest } = value as Record<string, unknown>;
  const way = random(5);
  if (way === 0) return rest;
  if (way === 1) return { ...rest, [['constructor', '__proto__', 'toString', 'x'][random(4)]!]: one };
  return { ...rest, [key]: changed(one, random) };
};

export const documents = (count: number, seed = 2, longest = LONGEST): Tried => {
  const random = randoms(seed);
  const beats = DEMO_BEATS.map((beat) => JSON.parse(writeBeat(beat)) as unknown);
  const faults: string[] = [];
  for (let at = 0; at < count; at++) {
    let raw = beats[random(beats.length)];
    for (let times = 1 + random(2); times > 0; times--) raw = changed(raw, random);
    const text = JSON.stringify(raw) ?? '';
    tryOne(
      faults,
      `document ${at}`,
      'beat',
      () => {
        const read = readBeat(text);
        if (!read.ok && CODE.test(read.error)) throw new Error(`it says: ${read.error}`);
        return read.ok ? () => works(read.value) : undefined;
      },
      longest,
    );
  }
  return { what: 'mutated documents, read and worked with', tried: count, faults };
};

export const others = (count: number, seed = 3, longest = LONGEST): Tried => {
  const random = randoms(seed);
  const faults: string[] = [];
  const texts = [
    '{"kind":"ruddik.template","version":1,"name":"A","grid":"1/16","slots":[{"offset":0,"velocity":0.9},null]}',
    '{"kind":"ruddik.drumMap","version":1,"name":"A","notes":[{"note":36,"instrument":"kick"}]}',
    '{"kind":"ruddik.keepers","version":1,"grooves":[],"folders":[]}',
  ];
  const readers = { template: readTemplate, map: readDrumMap, keepers: readFavourites };
  for (let at = 0; at < count; at++) {
    const text = JSON.stringify(changed(JSON.parse(texts[at % 3]!), random)) ?? '';
    const cut = random(5) === 0 ? text.slice(0, random(text.length + 1)) : text;
    const [name, read] = Object.entries(readers)[at % 3]!;
    tryOne(
      faults,
      `file ${at}`,
      name,
      () => {
        const out = read(cut) as { ok: boolean; error?: string };
        if (!out.ok && CODE.test(out.error ?? '')) throw new Error(`it says: ${out.error}`);
        return undefined;
      },
      longest,
    );
  }
  return { what: 'mutated templates, maps and keepers', tried: count, faults };
};
