/**
 * Files that are well formed and say what no person would: names that every object has, blanks, tempos without end, rates below
 * zero, 65,282 channels, one microsecond a quarter. Each is read by all that reads its kind, kept, read back, played and exported.
 */
import { performance } from 'node:perf_hooks';
import { writeMidi, type MidiEvent } from 'midi-file';
import { readBeat } from '../core/document/file';
import { mendBeat } from '../core/document/mend';
import type { Sample } from '../core/document/soundSchema';
import { writeBeat } from '../core/document/text';
import { grooveOfFile } from '../core/groove/importing';
import { bringIn } from '../core/bring/bring';
import { newBeat } from '../core/document/defaults';
import { GENERAL_MIDI } from '../core/midi/drumMap/drumMap';
import { decodeAudio } from '../core/samples/decode';
import { sampleSecondsOf } from '../core/samples/sample';
import { wavOf } from '../core/files/wav';
import { DEMO_BEATS } from '../demo/beats';
import { randoms, READERS, works } from './files';
import type { Tried } from './report';

type Random = (below: number) => number;

/** Names that every object has, blanks, and what a table or a file system would take for its own. */
export const NAMES = [
  '__proto__',
  'constructor',
  'toString',
  'hasOwnProperty',
  'valueOf',
  ' ',
  '\t\n',
  '\u0000',
  '\u200b',
  '\ufeffRain',
  '..',
  '../../rain',
  'con',
  '=1+1',
  '<b>rain</b>',
  '"',
  '\\',
  '🏮'.repeat(40),
  'x'.repeat(5000),
  '\ud800',
  '0',
  '-1',
  'null',
  'undefined',
];

const one = <T>(random: Random, from: readonly T[]): T => from[random(from.length)]!;

const TEMPOS = [1, 2, 3, 50, 1000, 500_000, 600_000, 16_777_215, 0];
const PPQS = [1, 2, 24, 96, 480, 960, 32_767];
const TIMES = [0, 0, 1, 1, 7, 96, 480, 960, 3840, 40_000, 2_000_000, 0x0fffffff];
const METERS = [
  [4, 4],
  [0, 4],
  [1, 64],
  [255, 1],
  [255, 128],
  [7, 8],
  [3, 2],
] as const;

/** A MIDI file whose tempos, meters, times and names are chosen from what no one writes. */
export const meantMidi = (random: Random): Uint8Array => {
  const events: MidiEvent[] = [];
  const meta = (event: object) =>
    events.push({ deltaTime: random(3) ? 0 : one(random, TIMES), meta: true, ...event } as MidiEvent);
  for (let times = 1 + random(40); times > 0; times--) {
    const what = random(8);
    const deltaTime = random(3) ? one(random, TIMES.slice(0, 8)) : one(random, TIMES);
    if (what === 0) meta({ type: 'setTempo', microsecondsPerBeat: one(random, TEMPOS) });
    else if (what === 1) {
      const [numerator, denominator] = one(random, METERS);
      meta({
        type: 'timeSignature',
        numerator,
        denominator,
        metronome: random(256),
        thirtyseconds: random(256),
      });
    } else if (what === 2)
      meta({
        type: one(random, ['trackName', 'marker', 'text', 'instrumentName', 'cuePoint']),
        text: one(random, NAMES),
      });
    else {
      const at = {
        channel: random(4) ? 9 : random(16),
        noteNumber: random(3) ? 35 + random(47) : random(128),
      };
      events.push({ deltaTime, type: 'noteOn', ...at, velocity: one(random, [0, 1, 64, 127]) } as MidiEvent);
      if (random(5))
        events.push({
          deltaTime: one(random, TIMES.slice(0, 9)),
          type: 'noteOff',
          ...at,
          velocity: random(128),
        } as MidiEvent);
    }
  }
  events.push({ deltaTime: one(random, TIMES), meta: true, type: 'endOfTrack' } as MidiEvent);
  return Uint8Array.from(
    writeMidi({
      header: { format: one(random, [0, 1]), numTracks: 1, ticksPerBeat: one(random, PPQS) },
      tracks: [events],
    }),
  );
};

/** All that reads a MIDI file, its tempos followed among it; each gives what is then done with what it took. */
const MIDI_READERS: Record<string, (bytes: Uint8Array) => (() => void) | undefined> = {
  ...READERS,
  'groove with its tempos': (bytes) => {
    const read = grooveOfFile(bytes, {
      path: 'x.mid',
      source: 'imported',
      map: GENERAL_MIDI,
      followTempo: true,
    });
    if (!read.ok) return undefined;
    return () => {
      const { beat } = bringIn(newBeat('b', 'B', 1), read.groove, { how: 'new', id: 'n', name: 'N' });
      works({ ...beat, patterns: beat.patterns.slice(-1) });
    };
  },
};

/** Every name in a document that tells things apart or is shown, each put into all its places at once. */
const renamed = (text: string, random: Random): string => {
  const names = [...text.matchAll(/"(?:id|name|file|lane|pattern|section|kit)":"([^"\\]+)"/g)].map(
    ([, name]) => name!,
  );
  if (!names.length) return text;
  const [from, to] = [one(random, names), one(random, NAMES)];
  return text.replaceAll(JSON.stringify(from), JSON.stringify(to));
};

const FIGURES = ['1e999', '-1e999', '1e308', '-0', '5e-324', '0.1', '-1', '4294967296', '1e21'];
/** A figure without end, below zero or between two that there are, in the place of one of a document's. */
const figured = (text: string, random: Random): string => {
  const all = [...text.matchAll(/(?<=[:[,])-?\d+(\.\d+)?(?=[,}\]])/g)];
  if (!all.length) return text;
  const { index, 0: old } = one(random, all);
  return text.slice(0, index) + one(random, FIGURES) + text.slice(index + old.length);
};

/** A WAV of a short tone whose head says other rates, channels and bits. */
const meantWav = (random: Random): Uint8Array => {
  const tone = Float32Array.from({ length: 400 + random(4000) }, (_, at) => Math.sin(at * 0.2));
  const bytes = wavOf([tone], 44_100, one(random, [16, 24, 32] as const));
  const view = new DataView(bytes.buffer, bytes.byteOffset);
  const of = one(random, ['rate', 'channels', 'bits', 'size', 'kind', 'block'] as const);
  if (of === 'rate') view.setUint32(24, one(random, [0, 1, 7, 999, 0xffffffff, 0x80000000]), true);
  if (of === 'channels') view.setUint16(22, one(random, [0, 3, 32, 33, 65_282, 65_535]), true);
  if (of === 'bits') view.setUint16(34, one(random, [0, 1, 7, 8, 12, 64, 65_535]), true);
  if (of === 'size') view.setUint32(40, one(random, [0, 1, 0x7fffffff, 0xffffffff]), true);
  if (of === 'kind') view.setUint16(20, one(random, [0, 2, 3, 6, 7, 0xfffe, 0xffff]), true);
  if (of === 'block') view.setUint16(32, one(random, [0, 1, 65_535]), true);
  return bytes;
};

/** Exponents and mantissas of AIFF's rate: below zero, without end, none at all. */
const AIFF_RATES = [
  [0x7f, 0xff, 0x80, 0],
  [0xff, 0xff, 0x80, 0],
  [0xc0, 0x0e, 0xac, 0x44],
  [0, 0, 0, 0],
  [0x7f, 0xff, 0xc0, 0],
  [0x3f, 0xff, 0x80, 0],
  [0x40, 0x0e, 0xac, 0x44],
];

const meantAiff = (random: Random): Uint8Array => {
  const frames = 600;
  const bytes = new Uint8Array(54 + frames * 2);
  const view = new DataView(bytes.buffer);
  const text = (at: number, letters: string) => bytes.set(new TextEncoder().encode(letters), at);
  text(0, 'FORM');
  view.setUint32(4, bytes.length - 8);
  text(8, 'AIFFCOMM');
  view.setUint32(16, 18);
  view.setUint16(20, one(random, [1, 1, 1, 0, 33, 65_282]));
  view.setUint32(22, one(random, [frames, frames, 0, 0xffffffff]));
  view.setUint16(26, one(random, [16, 16, 16, 0, 8, 33, 65_535]));
  bytes.set(one(random, AIFF_RATES), 28);
  text(38, 'SSND');
  view.setUint32(42, 8 + frames * 2);
  for (let at = 0; at < frames; at++) view.setInt16(54 + at * 2, Math.round(20_000 * Math.sin(at * 0.2)));
  return bytes;
};

/** What was accepted of a sound is a sample of a beat that can be read again. */
const keptAs = (seconds: number): void => {
  const sample: Sample = { id: 'a'.repeat(64), file: 'rain.wav', seconds };
  const voices = {
    kick: { choose: 'velocity' as const, layers: [{ source: { sample }, low: 1, high: 127 }] },
  };
  const read = readBeat(writeBeat({ ...newBeat('b', 'B', 1), own: { name: 'Own', voices } }));
  if (!read.ok) throw new Error(`it was accepted, and is not read back: ${read.error}`);
  works(read.value);
};

/** So long one of them may take, in ms, and so many bytes it may leave in use. */
export const MOST_TRIED = { ms: 2000, bytes: 500 * 1024 * 1024 } as const;

interface Case {
  name: string;
  work: () => void | Promise<void>;
}

const cases = (at: number, random: Random): Case[] => {
  const way = at % 5;
  if (way === 0 || way === 1) {
    const bytes = meantMidi(random);
    return Object.entries(MIDI_READERS).map(([name, read]) => ({ name, work: () => read(bytes)?.() }));
  }
  if (way === 2 || way === 3) {
    let text = JSON.stringify(one(random, DEMO_BEATS));
    for (let times = 1 + random(2); times > 0; times--)
      text = way === 2 ? renamed(text, random) : figured(text, random);
    const work = () => {
      const read = readBeat(text);
      if (read.ok) works(read.value);
      const mended = mendBeat(text);
      if (mended.ok) works(mended.value.beat);
      else if (read.ok) throw new Error('what is read is not mended');
    };
    return [{ name: 'document', work }];
  }
  const bytes = random(2) ? meantWav(random) : meantAiff(random);
  const work = async () => {
    const read = await decodeAudio(bytes, 'x.wav');
    if (!read.ok && /undefined|NaN|object Object/.test(read.error)) throw new Error(read.error);
    if (!read.ok) return;
    keptAs(sampleSecondsOf(read.audio));
  };
  return [{ name: 'sound', work }];
};

/** @param longest how long each may take, in ms */
export const meant = async (count: number, seed = 4, longest: number = MOST_TRIED.ms): Promise<Tried> => {
  const random = randoms(seed);
  const faults: string[] = [];
  for (let at = 0; at < count; at++)
    for (const { name, work } of cases(at, random)) {
      const [from, before] = [performance.now(), process.memoryUsage.rss()];
      try {
        await work();
      } catch (fault) {
        faults.push(`${at}, ${name}: ${(fault as Error).message.slice(0, 200)}`);
      }
      const took = performance.now() - from;
      const grew = process.memoryUsage.rss() - before;
      if (took > longest) faults.push(`${at}, ${name}: ${took.toFixed(0)} ms`);
      if (grew > MOST_TRIED.bytes) faults.push(`${at}, ${name}: ${Math.round(grew / 1024 / 1024)} MB`);
    }
  return { what: 'files that mean what no one would, read, kept, played and exported', tried: count, faults };
};
