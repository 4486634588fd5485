import { freeId } from '../document/numbered';
import { inOrder } from '../document/position';
import { hitOfNote } from '../midi/convert/hits';
import type { Read } from '../document/file';
import { MOST, SONG } from '../document/choices';
import { count } from '../document/text';
import { EMPTY_LANE_PATTERN, newBeat } from '../document/defaults';
import { INSTRUMENTS, type InstrumentId } from '../document/instruments';
import { barTicks, type Meter } from '../document/meter';
import type { Beat, Entry, Hit, Lane, LanePattern, Pattern, Place, Section } from '../document/schema';
import { UNKNOWN } from '../groove/fromMidi';
import { GENERAL_MIDI, instrumentIn, type DrumMap } from '../midi/drumMap/drumMap';
import { readMidi } from '../midi/read/readMidi';
import { midiPartsOf, textOf, trackNames, withParts, type MidiPart } from '../midi/read/parts';
import { wholeBars, type MidiFile, type ReadNote } from '../midi/read/midiFile';
import { clamp, QUARTER, type Ticks } from '../units';
import { colourOf, freeSectionName } from './song';
import { barsOfFile, runsOf, type BarOfFile, type Run } from '../midi/convert/midiBars';

/**
 * A MIDI file as a beat: each marker begins a section, bars that come again become a pattern that repeats, and what a
 * track of its own was called is what its lane is called. Hits stand where they were, so that the file comes out again
 * with the same notes at the same ticks.
 */

/** A hit in the bar that its step belongs to. */
interface Placed {
  bar: number;
  /** From the bar's start. */
  step: number;
  hit: Hit;
  lane: string;
}

const STEP: Ticks = 240;

const eventsOf = (file: MidiFile) => {
  const markers: { at: Ticks; name: string }[] = [];
  const meters: { at: Ticks; meter: Meter }[] = [];
  const scale = QUARTER / file.ppq;
  file.tracks.forEach((events) => {
    let tick = 0;
    for (const event of events) {
      tick += event.deltaTime;
      if (event.type === 'marker') markers.push({ at: tick * scale, name: textOf(event.text) });
      if (event.type === 'timeSignature')
        meters.push({
          at: tick * scale,
          meter: { beats: event.numerator, unit: event.denominator as Meter['unit'] },
        });
    }
  });
  const byTime = (a: { at: Ticks }, b: { at: Ticks }) => a.at - b.at;
  return { markers: markers.sort(byTime), meters: meters.sort(byTime), names: trackNames(file) };
};

const COUNT_IN = 'Count-in';

/** What has a lane of its own, the finest first: where there are more of these than lanes, the next coarser one is. */
const LANE_KEYS: ((note: ReadNote) => string)[] = [
  ({ track, note, channel }) => `${track} ${channel} ${note}`,
  ({ note, channel }) => `${channel} ${note}`,
  ({ note }) => `${note}`,
];

/** A lane for each number and channel; of files with a track for each drum, for each track too. */
const lanesOf = (
  file: MidiFile,
  names: string[],
  map: DrumMap,
): { lanes: Lane[]; laneOf: (note: ReadNote) => string | null; folded: boolean } => {
  const lanes: Lane[] = [];
  const byKey = new Map<string, string>();
  const numbers = new Map<number, Set<number>>();
  for (const { track, note } of file.notes) numbers.set(track, (numbers.get(track) ?? new Set()).add(note));
  const wanted = file.notes.filter(({ track }) => names[track] !== COUNT_IN);
  const level = LANE_KEYS.findIndex((key) => new Set(wanted.map(key)).size <= MOST.lanes);
  const keyOf = LANE_KEYS.at(level)!;
  for (const one of file.notes) {
    const key = keyOf(one);
    if (byKey.has(key) || names[one.track] === COUNT_IN || lanes.length >= MOST.lanes) continue;
    const meant = instrumentIn(map, one.note, one.channel);
    const instrument: InstrumentId = meant ?? UNKNOWN;
    const own = numbers.get(one.track)!.size === 1 && file.tracks.length > 2 ? names[one.track]?.trim() : '';
    const id = freeId(
      instrument,
      lanes.map((lane) => lane.id),
    );
    byKey.set(key, id);
    lanes.push({
      id,
      name: (own || (meant ? INSTRUMENTS[instrument].name : `Note ${one.note}`)).slice(0, MOST.name),
      instrument,
      note: one.note,
      channel: one.channel,
      level: 1,
      pan: 0,
      mute: false,
      solo: false,
    });
  }
  return { lanes, laneOf: (note) => byKey.get(keyOf(note)) ?? null, folded: level !== 0 };
};

/** Every note with the bar of its step: a hair before a bar line it is an early first beat. */
const placedNotes = (
  file: MidiFile,
  bars: BarOfFile[],
  laneOf: (note: ReadNote) => string | null,
): Placed[] => {
  const scale = QUARTER / file.ppq;
  const out: Placed[] = [];
  const sorted = [...file.notes].sort((a, b) => a.start - b.start);
  let bar = 0;
  for (const one of sorted) {
    const lane = laneOf(one);
    if (!lane) continue;
    const at = one.start * scale;
    while (bar + 1 < bars.length && bars[bar + 1]!.from <= at + STEP / 2 - 1e-6) bar += 1;
    const from = at - bars[bar]!.from;
    const to = from + (one.end - one.start) * scale;
    const hit = hitOfNote({ from, to, velocity: one.velocity }, '1/16', 1e-3);
    out.push({ bar, step: hit.step, lane, hit: { ...hit, step: 0 } });
  }
  return out;
};

/** What a bar plays, in a text that is the same for bars that are the same. */
const written = (hits: Placed[], { meter }: BarOfFile): string =>
  `${meter.beats}/${meter.unit} ${hits
    .map(
      ({ lane, step, hit }) =>
        `${lane} ${step} ${hit.nudge.toFixed(4)} ${hit.velocity} ${hit.length!.toFixed(2)}`,
    )
    .sort()
    .join(';')}`;

const partsOf = (
  hits: Placed[],
  bars: BarOfFile[],
  { first, bars: count }: Run,
  loops: boolean,
  moved: Moved,
): Record<string, LanePattern> => {
  const parts: Record<string, LanePattern> = {};
  for (const { bar, step, lane, hit } of hits) {
    if (bar < first || bar >= first + count) continue;
    const before = (bars[bar]!.from - bars[first]!.from) / STEP;
    // A bar that is no whole number of sixteenths leaves a rest for the nudge.
    const whole = Math.round(before);
    const nudge = clamp(hit.nudge + before - whole, -0.5, 0.5);
    const part = (parts[lane] ??= { ...EMPTY_LANE_PATTERN, hits: [] });
    part.hits.push({ ...hit, step: step + whole, nudge });
  }
  const total = (bars[first + count - 1]!.from - bars[first]!.from + barTicks(bars[first]!.meter)) / STEP;
  for (const [lane, part] of Object.entries(parts)) {
    const now = part.hits.some(({ step }) => step >= total - 1e-6) ? finer(part, total, loops, moved) : part;
    parts[lane] = { ...now, hits: inOrder(now.hits) };
  }
  return parts;
};

/** Notes that could not stay where they were. */
interface Moved {
  notes: number;
}

/** The finest grid, of which every bar is a whole number of steps. */
const FINE = 6;

/**
 * A hit a hair before the last bar line. In a loop it is an early first beat; at a song's end it is put as near to its
 * place as the finest grid allows, at most a sixth of a sixteenth's half away.
 */
const finer = (part: LanePattern, total: number, loops: boolean, moved: Moved): LanePattern => {
  if (loops)
    return { ...part, hits: part.hits.map((hit) => (hit.step >= total - 1e-6 ? { ...hit, step: 0 } : hit)) };
  const hits = part.hits.map((hit) => {
    const at = (hit.step + hit.nudge) * FINE;
    const step = clamp(Math.round(at), 0, total * FINE - 1);
    // Early first beats have no room before the finest grid's first step.
    if (at - step < -0.5) moved.notes += 1;
    return { ...hit, step, nudge: clamp(at - step, -0.5, 0.5), length: clamp(hit.length! * FINE, 1e-3, 64) };
  });
  return { ...part, grid: '1/64T', hits };
};

const bpmAt = (file: MidiFile, at: Ticks): number =>
  Math.round(((file.ticksPerMs(at) * 60000) / QUARTER) * 100) / 100;

/** Tempos of a section where they are not the beat's: at its start, and what is reached little by little. */
const temposOf = (
  file: MidiFile,
  from: Ticks,
  to: Ticks,
  beat: number,
): Pick<Section, 'tempo' | 'change'> => {
  const begin = clamp(bpmAt(file, from), 20, 300);
  const steps = Math.ceil((to - from) / STEP);
  const last = bpmAt(file, to - STEP / 2);
  const end = steps > 1 ? begin + ((last - begin) * steps) / (steps - 1) : begin;
  return {
    ...(begin !== beat && { tempo: begin }),
    ...(Math.abs(last - begin) > 0.05 && {
      change: { tempo: clamp(Math.round(end * 100) / 100, 20, 300) },
    }),
  };
};

/** The parts that the notes of a file's bytes are on, the drums first. @example midiParts(bytes).ok // true */
export const midiParts = (bytes: Uint8Array): Read<MidiPart[]> => {
  const opened = readMidi(bytes, 'lenient');
  return opened.ok ? { ok: true, value: midiPartsOf(opened.value.file) } : opened;
};

/** What of a file is not as it was in the beat. */
const toldOf = (
  file: MidiFile,
  tempo: number,
  lanes: Lane[],
  lost: number,
  folded: boolean,
  moved: Moved,
): string[] => {
  const own = Math.round(file.tempo * 100) / 100;
  return [
    ...(folded
      ? [
          `It has more drums than the ${MOST.lanes} lanes of a beat: those of one number share a lane, whatever their track and channel.`,
        ]
      : []),
    ...(moved.notes
      ? [`${count(moved.notes, 'note')} just before a pattern’s start moved by up to half a sixteenth.`]
      : []),
    ...(own === tempo ? [] : [`Its ${own} BPM became ${tempo}: a beat goes from 20 to 300.`]),
    ...(lost && lanes.length
      ? [
          `A beat holds ${MOST.lanes} lanes; ${count(lost, 'note')} of other drums found no room and ${lost === 1 ? 'was' : 'were'} left out.`,
        ]
      : []),
  ];
};

/** A file opened as a beat, and what there is to say of it. */
export interface MidiBeat {
  beat: Beat;
  warnings: string[];
}

/**
 * @param name what the beat is called where the file says nothing
 * @param only the parts that are wanted, by their keys; left out, all
 * @returns the beat, or a sentence for a person; it never throws
 * @example beatFromMidi(new Uint8Array(), 'Rain', 'r', 1) // { ok: false, error: "It is empty." }
 */
export const beatFromMidi = (
  bytes: Uint8Array,
  name: string,
  id: string,
  seed: number,
  map: DrumMap = GENERAL_MIDI,
  only?: readonly string[],
): Read<MidiBeat> => {
  const opened = readMidi(bytes, 'lenient');
  if (!opened.ok) return opened;
  const { warnings } = opened.value;
  const file = withParts(opened.value.file, only);
  if (!file.notes.length) return { ok: false, error: 'It has no notes.' };
  const { markers, meters, names } = eventsOf(file);
  const bars = barsOfFile(meters, wholeBars(file));
  const { lanes, laneOf, folded } = lanesOf(file, names, map);
  if (!lanes.length || !bars.length) return { ok: false, error: 'It has no notes.' };
  const hits = placedNotes(file, bars, laneOf);
  const byBar = bars.map((): Placed[] => []);
  for (const hit of hits) byBar[hit.bar]!.push(hit);
  const texts = bars.map((bar, at) => written(byBar[at]!, bar));
  const blank = newBeat(id, (names[0]?.trim() || name).slice(0, MOST.name), seed);
  const tempo = clamp(Math.round(file.tempo * 100) / 100, 20, 300);
  const moved: Moved = { notes: 0 };
  const built = sectionsOf(file, bars, texts, hits, markers, tempo, moved);
  if (built.song.sections.length > SONG.sections || built.song.order.length > SONG.places)
    return {
      ok: false,
      error: `It would need ${built.song.sections.length} sections in ${built.song.order.length} places; a song holds ${SONG.sections} in ${SONG.places}. Bring it in as grooves, or in pieces.`,
    };
  if (built.patterns.length > MOST.patterns)
    return { ok: false, error: `It holds more than ${MOST.patterns} different patterns of 16 bars.` };
  const beat: Beat = {
    ...blank,
    tempo,
    lanes,
    patterns: built.patterns,
    ...(map !== GENERAL_MIDI && { map }),
    song: built.song,
  };
  const lost = file.notes.filter((one) => laneOf(one) === null && names[one.track] !== COUNT_IN).length;
  return {
    ok: true,
    value: { beat, warnings: [...warnings, ...toldOf(file, tempo, lanes, lost, folded, moved)] },
  };
};

interface Built {
  patterns: Pattern[];
  song: Beat['song'];
}

/** Where sections begin, by bar. */
const startsOf = (bars: BarOfFile[], markers: { at: Ticks; name: string }[]) => {
  const starts: { bar: number; name: string }[] = [];
  for (const { at, name } of markers) {
    const bar = bars.findIndex(({ from }) => Math.abs(from - at) < STEP / 2);
    if (bar >= 0 && starts[starts.length - 1]?.bar !== bar)
      starts.push({ bar, name: name.trim() || 'Section' });
  }
  return starts.length ? starts : [{ bar: 0, name: 'A' }];
};

const sectionsOf = (
  file: MidiFile,
  bars: BarOfFile[],
  texts: string[],
  hits: Placed[],
  markers: { at: Ticks; name: string }[],
  tempo: number,
  moved: Moved,
): Built => {
  const starts = startsOf(bars, markers);
  const patterns: Pattern[] = [];
  const known = new Map<string, string>();
  const patternFor = (run: Run, name: string): string => {
    const key = texts.slice(run.first, run.first + run.bars).join('|');
    const there = known.get(key);
    if (there) return there;
    const patternId = `p${patterns.length + 1}`;
    known.set(key, patternId);
    const used = patterns.filter((one) => one.name === name || one.name.startsWith(`${name} · `)).length;
    patterns.push({
      id: patternId,
      name: (used ? `${name} · ${used + 1}` : name).slice(0, MOST.name),
      meter: bars[run.first]!.meter,
      bars: run.bars,
      parts: partsOf(hits, bars, run, run.bars === bars.length, moved),
    });
    return patternId;
  };
  const sections: Section[] = [];
  const order: Place[] = [];
  const linked = new Map<string, string>();
  const endOf = (bar: number) =>
    bar < bars.length
      ? bars[bar]!.from
      : bars[bars.length - 1]!.from + barTicks(bars[bars.length - 1]!.meter);
  /** A section's runs; where there are more of them than a section holds, they go on in another of the same name. */
  const pieces = starts.flatMap(({ bar, name }, at) => {
    const runs = runsOf(texts, bars, bar, starts[at + 1]?.bar ?? bars.length);
    return Array.from({ length: Math.ceil(runs.length / SONG.entries) }, (_, piece) => ({
      name,
      runs: runs.slice(piece * SONG.entries, (piece + 1) * SONG.entries),
    }));
  });
  pieces.forEach(({ name, runs }, at) => {
    const bar = runs[0]!.first;
    const last = runs[runs.length - 1]!;
    const entries = runs.map((run, index): Entry => ({
      id: `e${index + 1}`,
      patternId: patternFor(run, name),
      times: 1,
      ...(run.length !== run.bars && { bars: run.length }),
    }));
    const to = endOf(last.first + last.length);
    const tempos = temposOf(file, bars[bar]!.from, to, tempo);
    const key = JSON.stringify([name, entries, tempos]);
    const before = linked.get(key);
    const sectionId = before ?? `s${sections.length + 1}`;
    linked.set(key, sectionId);
    if (!before)
      sections.push({
        id: sectionId,
        name: freeSectionName({ sections }, name).slice(0, MOST.name),
        pigment: colourOf(name),
        entries,
        silent: [],
        ...tempos,
      });
    order.push({ id: `o${at + 1}`, sectionId, times: 1 });
  });
  // One pattern that plays once is a pattern, and no song yet.
  const plain =
    order.length === 1 && sections[0]!.entries.length === 1 && sections[0]!.entries[0]!.bars === undefined;
  return { patterns, song: plain ? { sections: [], order: [] } : { sections, order } };
};
