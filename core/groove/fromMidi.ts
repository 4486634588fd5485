import { playability } from './playability';
import { RANGES } from '../document/ranges';
import { EMPTY_LANE_PATTERN } from '../document/defaults';
import { gridTicks, type Grid } from '../document/grid';
import { barTicks, type Meter } from '../document/meter';
import type { InstrumentId } from '../document/instruments';
import type { LanePattern } from '../document/schema';
import { findGrid } from '../analysis/extractTemplate';
import { measureSwing } from '../analysis/measure';
import type { DrumMap } from '../midi/drumMap/drumMap';
import { DRUM_CHANNEL } from '../midi/read/parts';
import { performanceOf, wholeBars, type MidiFile, type ReadNote } from '../midi/read/midiFile';
import { FILE_BOUNDS, MOST_TICKS } from '../midi/read/limits';
import { secondsAt } from '../play/tempoMap';
import { beatMeter } from '../midi/convert/beatMeter';
import { clamp, QUARTER, type Channel, type MidiNote, type Ticks } from '../units';
import { earlyAtLines } from './early';
import { layOut, type TimedHit } from './layOut';
import { withPedal } from './pedal';
import { type Groove, type GrooveFeel, type GrooveLane, type Source } from './groove';

/** How a file is read as a groove. */
export interface MidiReading {
  id: string;
  name: string;
  path: string[];
  source: Source;
  map: DrumMap;
  /** Further tempos are followed: hits stand where they would at the first tempo alone. */
  followTempo: boolean;
}

/** A file as a groove, and what was done to its notes. */
export interface ReadGroove {
  groove: Groove;
  /** Notes of one number on one tick that became one. */
  doubles: number;
  /** Notes that sounded on into the next of their number and were ended there. */
  cut: number;
  /** Whether its further tempos were followed. */
  followed: boolean;
  /** Other remarks, a sentence each. */
  told: string[];
  /** By number: what the map has no instrument for. */
  unknown: MidiNote[];
}

/** The instrument of a note that the map knows nothing of: it is kept, and says its number. */
export const UNKNOWN: InstrumentId = 'woodblock.low';

const fits = ({ beats }: Meter): boolean => beats <= RANGES.beats.most;

/** Where other meters begin, one after the other until the end. */
const metersIn = (file: MidiFile, total: Ticks): { at: Ticks; meter: Meter }[] => {
  const out: { at: Ticks; meter: Meter }[] = [];
  for (let at = file.bars.at(0).to; at < total - 1e-6; at = file.bars.at(at).to) {
    const { bar, compound } = file.bars.at(at);
    const meter = meterOfBar(bar, compound);
    if (meter) out.push({ at, meter });
  }
  return out;
};

/** A meter by the length of its bar: compound ones in eighths, others in the largest unit that goes. */
const meterOfBar = (bar: Ticks, compound: boolean): Meter | null => {
  for (const unit of compound ? ([8] as const) : ([4, 8, 16] as const)) {
    const beats = (bar * unit) / (4 * QUARTER);
    if (Number.isInteger(beats) && fits({ beats, unit })) return { beats, unit };
  }
  return null;
};

/** Where a position stands if all were played at the first tempo. */
const timeline = (file: MidiFile, follow: boolean): ((at: Ticks) => Ticks) => {
  if (!follow || !file.tempoChanges) return (at) => at;
  const { tempos } = file;
  const perSecond = (QUARTER * 1e6) / tempos.micros[0]!;
  return (at) => secondsAt(tempos, at) * perSecond;
};

/**
 * The same, where what comes of it can be worked through: one tempo of a microsecond among others makes hundreds of millions
 * of bars of them. Then the tempos are left alone.
 */
const followedTimeline = (file: MidiFile, follow: boolean) => {
  const at = timeline(file, follow);
  const followed = follow && at(wholeBars(file)) <= MOST_TICKS;
  return { followed, at: followed ? at : timeline(file, false) };
};

interface Key {
  channel: Channel;
  note: MidiNote;
  instrument: InstrumentId;
  unknown?: true;
  tuned?: true;
}

/** The instrument of a channel that is not for drums. */
const PITCHED: InstrumentId = 'marimba';

/** Whether a file says which of its channels is for drums: then what stands on others is none. */
const saysDrums = ({ tracks }: MidiFile): boolean =>
  tracks.some((events) =>
    events.some(
      (event) => event.type === 'noteOn' && event.channel === DRUM_CHANNEL - 1 && event.velocity > 0,
    ),
  );

/** One number's notes without doubles, none sounding into the next. */
const toldApart = (notes: ReadNote[]): { notes: ReadNote[]; doubles: number; cut: number } => {
  const sorted = [...notes].sort((a, b) => a.start - b.start || b.velocity - a.velocity);
  const kept = sorted.filter((note, at) => note.start !== sorted[at - 1]?.start);
  let cut = 0;
  const ended = kept.map((note, at) => {
    const next = kept[at + 1];
    if (!next || note.end <= next.start) return note;
    cut += 1;
    return { ...note, end: next.start };
  });
  return { notes: ended, doubles: sorted.length - kept.length, cut };
};

const timedHit = (note: ReadNote, grid: Grid, scale: number, at: (tick: Ticks) => Ticks): TimedHit => {
  const g = gridTicks(grid);
  const [from, to] = [at(note.start * scale), at(note.end * scale)];
  const length = clamp((to - from) / g, scale / g, 64);
  return { at: from, hit: { step: 0, nudge: 0, velocity: clamp(note.velocity, 1, 127), length, chance: 1 } };
};

const feelIn = (file: MidiFile, grid: Grid): GrooveFeel => {
  if (grid.endsWith('T')) return { kind: 'triplet', percent: 66.67 };
  const swing = file.notes.length ? measureSwing(performanceOf(file)) : null;
  const percent = swing && !swing.straight ? Math.round(swing.percent * 10) / 10 : 50;
  return { kind: percent >= 52 ? 'swung' : 'straight', percent: Math.max(50, percent) };
};

/** The instruments that keep time in most music: the busiest of these. */
const TIMEKEEPERS: InstrumentId[] = [
  'hat.closed',
  'ride',
  'shaker',
  'hat.pedal',
  'hat.open',
  'ride.bell',
  'cowbell',
  'tambourine',
  'maracas',
  'cabasa',
  'tom.floor',
];

/** The instrument that keeps time: the one of those that do with the most hits. */
export const busiestTimekeeper = (lanes: GrooveLane[]): InstrumentId | null => {
  const timed = lanes.filter(({ instrument }) => TIMEKEEPERS.includes(instrument));
  const most = Math.max(0, ...timed.map(({ part }) => part.hits.length));
  return timed.find(({ part }) => part.hits.length === most)?.instrument ?? null;
};

const TEMPO_ROOM = 0.12;

/**
 * A MIDI file as a groove. Every hit keeps its exact time and length: it is written out again at the ticks it came from.
 *
 * @example
 * grooveFromMidi(file, { id: 'a', name: 'Rain', path: [], source: 'imported', map: GENERAL_MIDI, followTempo: false }).groove.name
 * // "Rain"
 */
export const grooveFromMidi = (file: MidiFile, reading: MidiReading): ReadGroove => {
  const performance = performanceOf(file);
  const grid = file.notes.length ? findGrid(performance) : '1/16';
  const partGrid: Grid = grid.endsWith('T') ? grid : '1/16';
  const scale = QUARTER / file.ppq;
  const { meter, told } = beatMeter(file.meter);
  const { at, followed } = followedTimeline(file, reading.followTempo);
  const bar = barTicks(meter);
  const bars = Math.max(1, Math.ceil(at(wholeBars(file)) / bar - 1e-6));
  const meters = metersIn(file, wholeBars(file));
  const byNote = new Map<string, { key: Key; notes: ReadNote[] }>();
  const unknown = new Set<MidiNote>();
  const pitched = saysDrums(file);
  const tuned = new Map<Channel, ReadNote[]>();
  for (const [one, instrument] of withPedal(file, reading.map)) {
    if (pitched && one.channel !== DRUM_CHANNEL) {
      const there = tuned.get(one.channel);
      if (there) there.push(one);
      else tuned.set(one.channel, [one]);
      continue;
    }
    if (!instrument) unknown.add(one.note);
    const key: Key = {
      channel: one.channel,
      note: one.note,
      instrument: instrument ?? UNKNOWN,
      ...(!instrument && { unknown: true }),
    };
    const id = `${one.channel} ${one.note} ${key.instrument}`;
    const there = byNote.get(id);
    if (there) there.notes.push(one);
    else byNote.set(id, { key, notes: [one] });
  }
  let [doubles, cut] = [0, 0];
  const total = bars * bar;
  /** An early first beat just before the end belongs to the start of the next round. */
  const laidOut = (timed: TimedHit[]): Pick<LanePattern, 'grid' | 'hits'> => {
    const sorted = [...timed].sort((a, b) => a.at - b.at);
    const early = earlyAtLines(
      sorted.map((one) => one.at),
      [total],
      () => file.ticksPerMs(wholeBars(file) - 1e-3),
    );
    return layOut(
      sorted.map((one, index) => (early.has(index) ? { ...one, at: one.at - total } : one)),
      partGrid,
      total,
    );
  };
  const lanes = [...byNote.values()].map(({ key, notes }): GrooveLane => {
    const apart = toldApart(notes);
    doubles += apart.doubles;
    cut += apart.cut;
    const timed = apart.notes.map((note) => timedHit(note, partGrid, scale, at));
    return { ...key, part: { ...EMPTY_LANE_PATTERN, ...laidOut(timed) } };
  });
  for (const [channel, notes] of tuned) {
    // One lane: its notes are pitches against the lowest.
    const base = Math.min(...notes.map(({ note }) => note));
    const timed = [...new Set(notes.map(({ note }) => note))].flatMap((note) => {
      const apart = toldApart(notes.filter((one) => one.note === note));
      doubles += apart.doubles;
      cut += apart.cut;
      return apart.notes.map((one): TimedHit => {
        const { at: place, hit } = timedHit(one, partGrid, scale, at);
        return { at: place, hit: note > base ? { ...hit, pitch: note - base } : hit };
      });
    });
    const key: Key = { channel, note: base, instrument: PITCHED, tuned: true };
    lanes.push({ ...key, part: { ...EMPTY_LANE_PATTERN, ...laidOut(timed) } });
  }
  const sorted = lanes.sort((a, b) => a.note - b.note || a.channel - b.channel);
  const groove: Groove = {
    id: reading.id,
    name: reading.name,
    style: reading.path[reading.path.length - 1] ?? '',
    kind: 'file',
    source: reading.source,
    path: reading.path,
    meter,
    bars,
    ...(meters.length && !followed && { meters, end: wholeBars(file) }),
    bpm: Math.round(file.tempo * 100) / 100,
    tempos: [file.tempo * (1 - TEMPO_ROOM), file.tempo * (1 + TEMPO_ROOM)],
    feel: feelIn(file, grid),
    instruments: [...new Set(sorted.map(({ instrument }) => instrument))],
    timekeeper: busiestTimekeeper(sorted),
    tags: [],
    lanes: sorted,
  };
  if (sorted.some(({ unknown: no, tuned: pitched }) => !no && !pitched))
    groove.playable = playability(groove).all === 0;
  const tooLong =
    reading.followTempo && !followed && file.tempoChanges
      ? [`With its tempos it would be longer than ${FILE_BOUNDS.quarters / 4} bars.`]
      : [];
  return {
    groove,
    doubles,
    cut,
    followed,
    told: [...(told ? [told] : []), ...tooLong],
    unknown: [...unknown].sort((a, b) => a - b),
  };
};
