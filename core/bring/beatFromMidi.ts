import { freeId } from '../document/numbered';
import { gridTicks } from '../document/grid';
import type { Read } from '../document/file';
import { MOST, SONG } from '../document/choices';
import { count } from '../document/text';
import { EMPTY_LANE_PATTERN, newBeat } from '../document/defaults';
import { INSTRUMENTS, type InstrumentId } from '../document/instruments';
import { barTicks, type Meter } from '../document/meter';
import type { Beat, Entry, Hit, Lane, LanePattern, Pattern, Place, Section } from '../document/schema';
import { earlyAtLines } from '../groove/early';
import { UNKNOWN } from '../groove/fromMidi';
import { layOut, type TimedHit } from '../groove/layOut';
import { beatMeter } from '../midi/convert/beatMeter';
import { inSequence } from '../midi/convert/sequences';
import { GENERAL_MIDI, instrumentIn, type DrumMap } from '../midi/drumMap/drumMap';
import { readMidi } from '../midi/read/readMidi';
import { midiPartsOf, textOf, trackNames, withParts, type MidiPart } from '../midi/read/parts';
import { meterOf, wholeBars, type MidiFile, type ReadNote } from '../midi/read/midiFile';
import { clamp, QUARTER, TEMPO, type Ms, type Ticks } from '../units';
import { tempoPieces, type TempoPiece } from './midiTempos';
import { colourOf, freeSectionName } from '../document/sectionNames';
import { barsOfFile, runsOf, type BarOfFile, type Run } from '../midi/convert/midiBars';

/**
 * A MIDI file as a beat: each marker begins a section, bars that come again become a pattern that repeats, and what a
 * track of its own was called is what its lane is called. Hits stand where they were, so that the file comes out again
 * with the same notes at the same ticks.
 */

/** A hit in the bar that its step belongs to. */
interface Placed {
  bar: number;
  /** From the bar's start; below 0 it is early for it. */
  at: Ticks;
  /** Without a place of its own. */
  hit: Hit;
  lane: string;
}

const STEP: Ticks = 240;

const eventsOf = (file: MidiFile) => {
  const markers: { at: Ticks; name: string }[] = [];
  const meters: { at: Ticks; meter: Meter }[] = [];
  const said = new Set<string>();
  const scale = QUARTER / file.ppq;
  file.tracks.forEach((events) => {
    let tick = 0;
    for (const event of events) {
      tick += event.deltaTime;
      if (event.type === 'marker') markers.push({ at: tick * scale, name: textOf(event.text) });
      const signature = meterOf(event);
      if (signature) {
        const { meter, told } = beatMeter(signature);
        meters.push({ at: tick * scale, meter });
        if (told) said.add(told);
      }
    }
  });
  const byTime = (a: { at: Ticks }, b: { at: Ticks }) => a.at - b.at;
  return { markers: markers.sort(byTime), meters: meters.sort(byTime), names: trackNames(file), said };
};

const COUNT_IN = 'Count-in';

/** The keys of lanes, the finest first: where there are more of these than lanes, the next coarser one is. */
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

/** The last of a bar that even the finest steps do not reach: it is an early first beat of the next bar, if there is one. */
const UNREACHED: Ticks = gridTicks('1/64T') / 2;

/** Every note with the bar that it belongs to: its own, or the next one if it is an early first beat of that. */
const placedNotes = (
  file: MidiFile,
  bars: BarOfFile[],
  laneOf: (note: ReadNote) => string | null,
): Placed[] => {
  const scale = QUARTER / file.ppq;
  const byLane = new Map<string, ReadNote[]>();
  for (const one of file.notes) {
    const lane = laneOf(one);
    if (!lane) continue;
    const there = byLane.get(lane);
    if (there) there.push(one);
    else byLane.set(lane, [one]);
  }
  const out: Placed[] = [];
  for (const [lane, notes] of byLane) {
    notes.sort((a, b) => a.start - b.start);
    const positions = notes.map(({ start }) => start * scale);
    const early = earlyAtLines(
      positions,
      bars.slice(1).map(({ from }) => from),
      file.ticksPerMs,
    );
    let bar = 0;
    notes.forEach((one, index) => {
      const at = positions[index]!;
      while (bar + 1 < bars.length && bars[bar + 1]!.from <= at + 1e-6) bar += 1;
      const next = bars[bar + 1];
      const own = next && (early.has(index) || at > next.from - UNREACHED + 1e-6) ? bar + 1 : bar;
      const length = clamp(((one.end - one.start) * scale) / STEP, 1e-3, 64);
      const hit: Hit = { step: 0, nudge: 0, velocity: clamp(one.velocity, 1, 127), length, chance: 1 };
      out.push({ bar: own, at: at - bars[own]!.from, lane, hit });
    });
  }
  return out;
};

/** The content of a bar, as a text that is the same for bars that are the same. */
const written = (hits: Placed[], { meter }: BarOfFile): string =>
  `${meter.beats}/${meter.unit} ${hits
    .map(({ lane, at, hit }) => `${lane} ${at.toFixed(2)} ${hit.velocity} ${hit.length!.toFixed(2)}`)
    .sort()
    .join(';')}`;

const partsOf = (
  hits: Placed[],
  bars: BarOfFile[],
  { first, bars: count }: Run,
  loops: boolean,
  moved: Moved,
): Record<string, LanePattern> => {
  const timed: Record<string, TimedHit[]> = {};
  const total = bars[first + count - 1]!.from - bars[first]!.from + barTicks(bars[first]!.meter);
  const last = total - UNREACHED;
  for (const { bar, at, lane, hit } of hits) {
    if (bar < first || bar >= first + count) continue;
    const place = bars[bar]!.from - bars[first]!.from + at;
    // A loop goes on with its first beat; at a song's end there is none.
    const held = loops ? place : Math.min(place, last);
    if (held !== place) moved.notes += 1;
    (timed[lane] ??= []).push({ at: held, hit });
  }
  return Object.fromEntries(
    Object.entries(timed).map(([lane, own]) => [
      lane,
      { ...EMPTY_LANE_PATTERN, ...layOut(own, '1/16', total) },
    ]),
  );
};

/** Notes that could not stay where they were. */
interface Moved {
  notes: number;
}

/** The parts that the notes of a file's bytes are on, the drums first. @example midiParts(bytes).ok // true */
export const midiParts = (bytes: Uint8Array): Read<MidiPart[]> => {
  const opened = readMidi(bytes, 'lenient');
  return opened.ok ? { ok: true, value: midiPartsOf(opened.value.file) } : opened;
};

/** Sentences about what of a file differs from the beat. */
const toldOf = (
  file: MidiFile,
  tempo: number,
  lanes: Lane[],
  lost: number,
  folded: boolean,
  { moved, off }: { moved: Moved; off: Ms },
): string[] => {
  const own = Math.round(file.tempo * 100) / 100;
  const beyond = file.tempos.micros.filter(
    (one) => one > 60e6 / TEMPO.least || one < 60e6 / TEMPO.most,
  ).length;
  return [
    ...(folded
      ? [
          `It has more drums than the ${MOST.lanes} lanes of a beat: those of one number share a lane, whatever their track and channel.`,
        ]
      : []),
    ...(moved.notes
      ? [`${count(moved.notes, 'note')} within 20 ticks of the end came earlier by as much at the most.`]
      : []),
    ...(Math.abs(own - tempo) < 0.01 ? [] : [`Its ${own} BPM became ${tempo}: a beat goes from 20 to 300.`]),
    ...(beyond > 1 ? [`${count(beyond, 'tempo')} lie outside 20 to 300 BPM and were brought within.`] : []),
    ...(off > 1.5
      ? [
          `Its tempos change more often than a song can follow bar by bar: notes stand up to ${Math.round(off)} ms from where they were.`,
        ]
      : []),
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
  const { file, sequences } = inSequence(withParts(opened.value.file, only));
  if (!file.notes.length) return { ok: false, error: 'It has no notes.' };
  const { markers: marked, meters, names, said } = eventsOf(file);
  const scale = QUARTER / file.ppq;
  const markers = sequences.length ? sequences.map(({ at, name }) => ({ at: at * scale, name })) : marked;
  const bars = barsOfFile(meters, wholeBars(file));
  const { lanes, laneOf, folded } = lanesOf(file, names, map);
  if (!lanes.length || !bars.length) return { ok: false, error: 'It has no notes.' };
  const hits = placedNotes(file, bars, laneOf);
  const byBar = bars.map((): Placed[] => []);
  for (const hit of hits) byBar[hit.bar]!.push(hit);
  const texts = bars.map((bar, at) => written(byBar[at]!, bar));
  const blank = newBeat(id, (names[0]?.trim() || name).slice(0, MOST.name), seed);
  const moved: Moved = { notes: 0 };
  const starts = startsOf(bars, markers);
  const { pieces, off } = tempoPieces(
    file,
    bars,
    starts.map(({ bar }) => bar),
    SONG.sections,
  );
  const tempo = pieces[0]!.tempo;
  const built = sectionsOf(bars, texts, hits, { starts, pieces, whole: sequences.length > 0 }, tempo, moved);
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
    value: {
      beat,
      warnings: [...warnings, ...said, ...toldOf(file, tempo, lanes, lost, folded, { moved, off })],
    },
  };
};

interface Built {
  patterns: Pattern[];
  song: Beat['song'];
}

/** Where sections begin, by bar. */
const startsOf = (bars: BarOfFile[], markers: { at: Ticks; name: string }[]): Start[] => {
  const starts: Start[] = [];
  for (const { at, name } of markers) {
    const bar = bars.findIndex(({ from }) => Math.abs(from - at) < STEP / 2);
    if (bar >= 0 && starts[starts.length - 1]?.bar !== bar)
      starts.push({ bar, name: name.trim() || 'Section' });
  }
  if (!starts.length) return [{ bar: 0, name: 'A' }];
  // What stands before the first marker is a section too.
  return starts[0]!.bar > 0 ? [{ bar: 0, name: 'A' }, ...starts] : starts;
};

interface Start {
  bar: number;
  name: string;
}

/** Where sections begin, and with what tempo. */
interface Layout {
  starts: Start[];
  pieces: TempoPiece[];
  /** Each start is one pattern, as far as a pattern goes: what repeats within it stays written out. */
  whole: boolean;
}

/** The tempo of some runs of a piece, which may be only a part of what changes evenly over it. */
const partOfChange = (
  { from, to, tempo, reached }: TempoPiece,
  bars: BarOfFile[],
  runs: Run[],
): Pick<TempoPiece, 'tempo' | 'reached'> => {
  if (reached === undefined) return { tempo };
  const lineOf = (bar: number) => bars[bar]?.from ?? bars.at(-1)!.from + barTicks(bars.at(-1)!.meter);
  const last = runs[runs.length - 1]!;
  const at = (bar: number) => {
    const share = (lineOf(bar) - lineOf(from)) / (lineOf(to) - lineOf(from));
    return Math.round((tempo + (reached - tempo) * share) * 10_000) / 10_000;
  };
  return { tempo: at(runs[0]!.first), reached: at(last.first + last.length) };
};

const sectionsOf = (
  bars: BarOfFile[],
  texts: string[],
  hits: Placed[],
  { starts, pieces: tempos, whole }: Layout,
  tempo: number,
  moved: Moved,
): Built => {
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
  /** A section's runs; where there are more of them than a section holds, they go on in another of the same name. */
  const pieces = tempos.flatMap((piece) => {
    const { name } = starts.findLast(({ bar }) => bar <= piece.from)!;
    const own = whole ? texts.map((text, at) => `${at} ${text}`) : texts;
    const runs = runsOf(own, bars, piece.from, piece.to);
    return Array.from({ length: Math.ceil(runs.length / SONG.entries) }, (_, part) => ({
      name,
      runs: runs.slice(part * SONG.entries, (part + 1) * SONG.entries),
      piece,
    }));
  });
  pieces.forEach(({ name, runs, piece }, at) => {
    const entries = runs.map((run, index): Entry => ({
      id: `e${index + 1}`,
      patternId: patternFor(run, name),
      times: 1,
      ...(run.length !== run.bars && { bars: run.length }),
    }));
    const reached = partOfChange(piece, bars, runs);
    const key = JSON.stringify([name, entries, reached]);
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
        ...(reached.tempo !== tempo && { tempo: reached.tempo }),
        ...(reached.reached !== undefined && { change: { tempo: reached.reached } }),
      });
    order.push({ id: `o${at + 1}`, sectionId, times: 1 });
  });
  // One pattern that plays once is a pattern, and no song yet.
  const [only] = sections;
  const plain =
    order.length === 1 && only!.entries.length === 1 && only!.entries[0]!.bars === undefined && !only!.change;
  return { patterns, song: plain ? { sections: [], order: [] } : { sections, order } };
};
