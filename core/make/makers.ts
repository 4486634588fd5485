import { inOrder, placed, positionOf } from '../document/position';
import { lanePatternOf, newHit, newLane, patternTicks, stepsOf } from '../document/defaults';
import { MOST } from '../document/choices';
import { freeId } from '../document/numbered';
import { gridTicks, type Grid } from '../document/grid';
import { drumGroupOf } from '../document/drumGroups';
import { barTicks, beatTicks } from '../document/meter';
import { modulo } from '../numbers';
import type { Hit, Lane, LanePattern, Pattern, Take } from '../document/schema';
import type { Groove } from '../groove/groove';
import { hashText } from '../random/draw';
import { clamp, ticksPerMs, type Bpm, type MidiNote } from '../units';
import { bandHits, flatBand, type Band, type Bands } from './bands';
import { chordRow } from './chords';
import { isOfKind } from './drumKind';
import { drummable, type Struck } from './oneDrummer';
import { dealt, restSlots, ringHits, rotatedSlots, type RingHit, type RingPlay } from './ring';
import { notesInScale, scaleOf } from './scales';

/** What makers give to the lanes of a pattern: from their settings and a seed, so that it can be made again. */

/** What each lane plays by it. */
export type Made = Record<string, LanePattern>;
export type MadeSettings = NonNullable<Take['made']>['settings'];

/** A ring as it is set. */
export type RingSettings = RingPlay & {
  slots: number;
  strikes: number;
  /** Which arrangement, from 1, and the slots that it strikes before it is turned. */
  which: number;
  struck: number[];
  rotate: number;
  grid: Grid;
  /** The lane loops after the ring's own length; otherwise it fills the pattern. */
  own: boolean;
  /** The lane that gets what is left unstruck; '' is none. */
  rest: string;
  /** Lanes that strikes are dealt to besides, in turn; their ids with commas between. */
  deal: string;
};

export const RING_DEFAULTS: RingSettings = {
  slots: 16,
  strikes: 5,
  which: 1,
  struck: [0, 4, 7, 10, 13],
  rotate: 0,
  grid: '1/16',
  own: false,
  velocity: 96,
  accent: 116,
  every: 0,
  from: 0,
  doubling: 0,
  into: 2,
  rest: '',
  deal: '',
};

const ringHit = ({ slot, round, velocity, strokes }: RingHit, slots: number): Hit => ({
  ...newHit(round * slots + slot, velocity),
  ...(strokes > 1 && { length: 1, roll: { curve: 0, levels: Array.from({ length: strokes }, () => 1) } }),
});

/** A part of a lane with other hits, on a grid of its own; what moves do with it stays. */
const partWith = (part: LanePattern, grid: Grid, steps: number | null, hits: Hit[]): LanePattern => {
  const { shift: _, offbeat: __, offbeatGrid: ___, ...rest } = part;
  return { ...rest, grid, steps, rate: '1', direction: 'forward', hits: inOrder(hits) };
};

/**
 * What a ring gives to its lane, and to those that get what is left or that strikes are dealt to.
 *
 * @example Object.keys(ringParts(pattern, 'kick', RING_DEFAULTS, 7)) // ["kick"]
 */
export const ringParts = (pattern: Pattern, laneId: string, s: RingSettings, seed: number): Made => {
  const g = gridTicks(s.grid);
  const total = s.own ? s.slots : Math.max(1, Math.ceil(patternTicks(pattern) / g - 1e-9));
  const struck = rotatedSlots(s.struck, s.slots, s.rotate);
  const hits = ringHits(struck, s.slots, total, s, seed, hashText(laneId)).map((hit) =>
    ringHit(hit, s.slots),
  );
  const lanes = [laneId, ...s.deal.split(',').filter((id) => id && id !== laneId)];
  const part = (id: string, own: Hit[]) =>
    partWith(lanePatternOf(pattern, id), s.grid, s.own ? s.slots : null, own);
  const out: Made = {};
  dealt(hits, lanes.length).forEach((own, at) => (out[lanes[at]!] = part(lanes[at]!, own)));
  if (s.rest && !lanes.includes(s.rest)) {
    const left = restSlots(struck, s.slots);
    const play = { ...s, every: 0, doubling: 0 };
    out[s.rest] = part(
      s.rest,
      ringHits(left, s.slots, total, play, seed, hashText(s.rest)).map((hit) => ringHit(hit, s.slots)),
    );
  }
  return out;
};

/** Bands as they are set: each as its points one after the other, place, low and high; without any it is left out. */
export interface BandsSettings {
  grid: Grid;
  voices: number;
  heldOver: number;
  onBeat: number;
  /** Only the hits that are there are shaped. */
  shape: boolean;
  fullness: number[];
  /** Empty where hits that are there keep theirs. */
  velocity: number[];
  pitch: number[];
  length: number[];
  chance: number[];
  nudge: number[];
  /** Root and scale. */
  scale: string;
}

export const BANDS_DEFAULTS: BandsSettings = {
  grid: '1/16',
  voices: 1,
  heldOver: 0,
  onBeat: 0.2,
  shape: false,
  fullness: [0, 0.5, 0.5, 1, 0.5, 0.5],
  velocity: [0, 60, 110, 1, 60, 110],
  pitch: [],
  length: [],
  chance: [],
  nudge: [],
  scale: 'C minor pentatonic',
};

/** A band from its points as they are kept. @example bandOf([0, 1, 2]) // [{ at: 0, low: 1, high: 2 }] */
export const bandOf = (points: readonly number[]): Band =>
  Array.from({ length: Math.floor(points.length / 3) }, (_, i) => ({
    at: points[3 * i]!,
    low: points[3 * i + 1]!,
    high: points[3 * i + 2]!,
  }));

/** A band's points as they are kept. @example pointsOf([{ at: 0, low: 1, high: 2 }]) // [0, 1, 2] */
export const pointsOf = (band: Band): number[] => band.flatMap(({ at, low, high }) => [at, low, high]);

const bandsOf = (s: BandsSettings): Bands => ({
  fullness: bandOf(s.fullness),
  velocity: bandOf(s.velocity.length ? s.velocity : BANDS_DEFAULTS.velocity),
  ...(s.pitch.length > 0 && { pitch: bandOf(s.pitch) }),
  ...(s.length.length > 0 && { length: bandOf(s.length) }),
  ...(s.chance.length > 0 && { chance: bandOf(s.chance) }),
  ...(s.nudge.length > 0 && { nudge: bandOf(s.nudge) }),
});

/** The notes of the scale that a pitch band can come to. */
const notesOf = (bands: Bands, scale: string): MidiNote[] => {
  const found = scaleOf(scale);
  if (!bands.pitch || !found.ok) return [];
  return notesInScale(
    found.value,
    Math.min(...bands.pitch.map(({ low }) => low)),
    Math.max(...bands.pitch.map(({ high }) => high)),
  );
};

/** The hits of one step are told apart by their order. */
const voicesOf = (hits: Hit[]): number[] => {
  const many = new Map<number, number>();
  return hits.map(({ step }) => {
    const voice = many.get(step) ?? 0;
    many.set(step, voice + 1);
    return voice;
  });
};

const NOTES = 128;
/** The pitch itself, or where another hit of the step has it the nearest that none has. */
const freePitch = (pitch: number, taken: ReadonlySet<number>): number => {
  for (let by = 0; by < NOTES; by++)
    for (const one of [pitch + by, pitch - by]) if (!taken.has(one)) return one;
  return pitch;
};

/** The hits that are there, each of their quantities by its band: what has none stays as it is. */
const shapedHits = (
  part: LanePattern,
  pattern: Pattern,
  lane: Lane,
  s: BandsSettings,
  seed: number,
): Hit[] => {
  const bands = bandsOf(s);
  const slots = stepsOf(part, pattern);
  const voice = voicesOf(part.hits);
  const made = new Map(
    // The same draws that new hits on the steps would have.
    bandHits({
      bands: { ...bands, fullness: flatBand(1, 1) },
      slots,
      voices: bands.pitch ? Math.max(1, ...voice.map((one) => one + 1)) : 1,
      heldOver: 0,
      onBeat: 0,
      notes: notesOf(bands, s.scale),
      seed,
      key: hashText(lane.id),
    }).map((hit) => [`${hit.slot} ${hit.voice}`, hit]),
  );
  const taken = new Map<number, Set<number>>();
  return part.hits.map((hit, at) => {
    const by = made.get(`${hit.step} ${bands.pitch ? voice[at] : 0}`) ?? made.get(`${hit.step} 0`);
    if (!by) return hit;
    const pitches = taken.get(hit.step) ?? new Set();
    taken.set(hit.step, pitches);
    const { pitch: own = 0, ...rest } = hit;
    const drawn = bands.pitch && by.voice === voice[at] && by.note !== null ? by.note - lane.note : own;
    const pitch = freePitch(drawn, pitches);
    pitches.add(pitch);
    return {
      ...rest,
      ...(s.velocity.length > 0 && { velocity: by.velocity }),
      ...(bands.length && { length: by.length }),
      ...(bands.chance && { chance: by.chance }),
      ...(bands.nudge && { nudge: by.nudge }),
      ...(pitch !== 0 && { pitch }),
    };
  });
};

/**
 * What bands give to lanes, each by draws of its own.
 *
 * @example Object.keys(bandsParts(pattern, beat.lanes.slice(0, 1), BANDS_DEFAULTS, 7)) // ["kick"]
 */
export const bandsParts = (pattern: Pattern, lanes: Lane[], s: BandsSettings, seed: number): Made => {
  const bands = bandsOf(s);
  const g = gridTicks(s.grid);
  const slots = Math.max(1, Math.ceil(patternTicks(pattern) / g - 1e-9));
  const bar = barTicks(pattern.meter);
  const beat = beatTicks(pattern.meter);
  const strength = (slot: number): number => {
    const at = modulo(slot * g, bar);
    if (at < 1e-6) return 1;
    if (modulo(at, beat) < 1e-6) return 0.8;
    return modulo(at, beat / 2) < 1e-6 ? 0.45 : 0.15;
  };
  return Object.fromEntries(
    lanes.map((lane) => {
      const part = lanePatternOf(pattern, lane.id);
      const key = hashText(lane.id);
      if (s.shape) return [lane.id, { ...part, hits: inOrder(shapedHits(part, pattern, lane, s, seed)) }];
      const made = bandHits({
        bands,
        slots,
        voices: bands.pitch ? s.voices : 1,
        heldOver: s.heldOver,
        onBeat: s.onBeat,
        strength,
        notes: notesOf(bands, s.scale),
        seed,
        key,
      });
      const hits = made.map(({ slot, velocity, note, length, chance, nudge }): Hit => ({
        ...newHit(slot, velocity),
        length,
        chance,
        nudge,
        ...(note !== null && note !== lane.note && { pitch: note - lane.note }),
      }));
      return [lane.id, partWith(part, s.grid, null, hits)];
    }),
  );
};

/** Chords as they are set. */
export interface ChordsSettings {
  /** Names with spaces between; a dash keeps the one before. */
  chords: string;
  /** The lowest note that a root may be. */
  low: number;
  inversion: number;
  spread: number;
  doubled: boolean;
  grid: Grid;
  /** A chord every so many steps, each so long. */
  every: number;
  length: number;
  velocity: number;
  /** All of them so much of a step later. */
  offset: number;
}

export const CHORDS_DEFAULTS: ChordsSettings = {
  chords: 'Am F C G',
  low: 57,
  inversion: 0,
  spread: 0,
  doubled: false,
  grid: '1/16',
  every: 4,
  length: 4,
  velocity: 92,
  offset: 0,
};

/** What chords give, and what of them had no room. */
export type ChordsMade =
  | {
      ok: true;
      parts: Made;
      /** The chords for which the pattern has no place any more. */
      left: string[];
      /** How many notes lie beyond what MIDI has. */
      beyond: number;
    }
  | { ok: false; error: string };

/**
 * What chords give to a lane, one after the other over the pattern; a sentence where one of them is none.
 *
 * @example chordsPart(pattern, beat.lanes[0]!, { ...CHORDS_DEFAULTS, chords: 'wet' }).ok // false
 */
export const chordsPart = (pattern: Pattern, lane: Lane, s: ChordsSettings): ChordsMade => {
  const row = chordRow(s.chords, s.low, s);
  const wrong = row.find(({ notes }) => !notes.ok)?.notes;
  if (wrong && !wrong.ok) return wrong;
  if (!row.length) return { ok: false, error: 'There is no chord yet. Write some, such as “Am F C G”.' };
  const steps = Math.ceil(patternTicks(pattern) / gridTicks(s.grid) - 1e-9);
  const hits: Hit[] = [];
  let beyond = 0;
  const places = Math.ceil(steps / s.every);
  for (let at = 0; at < places; at++) {
    const { notes } = row[at % row.length]!;
    if (!notes.ok) continue;
    beyond += notes.beyond;
    for (const note of notes.value) {
      const pitch = clamp(note - lane.note, -127, 127);
      hits.push({
        ...newHit(at * s.every, s.velocity),
        length: s.length,
        nudge: clamp(s.offset, -0.5, 0.5),
        ...(pitch !== 0 && { pitch }),
      });
    }
  }
  return {
    ok: true,
    parts: { [lane.id]: partWith(lanePatternOf(pattern, lane.id), s.grid, null, hits) },
    left: row.slice(places).map(({ name }) => name),
    beyond,
  };
};

/** Which lane plays a line: that of its instrument, or one of its kind that no other line has. */
const laneFor = (
  lanes: Lane[],
  instrument: Lane['instrument'],
  taken: ReadonlySet<string>,
): Lane | undefined =>
  lanes.find((lane) => lane.instrument === instrument && !lane.loop) ??
  lanes.find((lane) => isOfKind(lane.instrument, instrument) && !lane.loop && !taken.has(lane.id));

/** What a whole beat gives: what each lane plays, the lanes that it needs besides, and what was left out. */
export interface BeatParts {
  parts: Made;
  /** To be added, with the parts that are theirs. */
  added: Lane[];
  /** Instruments for which there was no lane, where none are added, or no room. */
  left: Lane['instrument'][];
}

/** What a whole beat is laid out by. */
export interface BeatLayout {
  /** Ids of the lanes that stay as they are. */
  kept: readonly string[];
  /** Whether lanes that the style needs and the beat does not have are added. */
  adds: boolean;
  /** Only what one drummer can play beside the lanes that stay. */
  oneDrummer: boolean;
  tempo: Bpm;
}

/** A hit that is struck, and whether it may give way. */
interface Stroke extends Struck {
  hit: Hit | null;
  laneId: string;
}

/** What never gives way: what stays as it is, then the strong strokes of the snare. */
const RANK = { kept: 400, backbeat: 200 } as const;
const BACKBEAT = 75;

/** Without the hits for which no hand or foot is free beside what stays. */
const playableParts = (pattern: Pattern, lanes: Lane[], made: Made, { kept, tempo }: BeatLayout): Made => {
  const strokesOf = (lane: Lane): Stroke[] => {
    const fixed = kept.includes(lane.id) || !made[lane.id];
    const part = made[lane.id] ?? lanePatternOf(pattern, lane.id);
    if (lane.mute) return [];
    return part.hits.map((hit) => {
      const strong = drumGroupOf(lane.instrument) === 'snare' && hit.velocity >= BACKBEAT;
      return {
        ms: positionOf(hit, part.grid) / ticksPerMs(tempo),
        velocity: hit.velocity + (fixed ? RANK.kept : strong ? RANK.backbeat : 0),
        instrument: lane.instrument,
        hit: fixed ? null : hit,
        laneId: lane.id,
      };
    });
  };
  const kit = drummable(lanes.filter(({ tuning, loop }) => !tuning && !loop).flatMap(strokesOf));
  const struck = new Set(kit.flatMap(({ hit }) => hit ?? []));
  return Object.fromEntries(
    Object.entries(made).map(([id, part]) => [
      id,
      { ...part, hits: part.hits.filter((hit) => struck.has(hit)) },
    ]),
  );
};

/**
 * What a whole beat gives to the lanes of a beat, each line to a drum of its own kind or to none; lanes that stay as they are are
 * left out.
 *
 * @example beatParts(pattern, beat.lanes, groove, { kept: [], adds: true, oneDrummer: true, tempo: 100 }).left // []
 */
export const beatParts = (pattern: Pattern, lanes: Lane[], groove: Groove, layout: BeatLayout): BeatParts => {
  const { kept, adds, oneDrummer } = layout;
  const length = patternTicks(pattern);
  const empty = (id: string) => partWith(lanePatternOf(pattern, id), '1/16', null, []);
  const parts: Made = Object.fromEntries(
    lanes.filter(({ id, loop }) => !kept.includes(id) && !loop).map(({ id }) => [id, empty(id)]),
  );
  const [added, left]: [Lane[], Lane['instrument'][]] = [[], []];
  const taken = new Set(
    groove.lanes.flatMap(({ instrument }) => lanes.find((lane) => lane.instrument === instrument)?.id ?? []),
  );
  for (const { instrument, part } of groove.lanes) {
    let lane = laneFor(lanes, instrument, taken);
    if (!lane && adds && lanes.length + added.length < MOST.lanes) {
      const ids = [...lanes, ...added].map(({ id }) => id);
      lane = newLane(freeId(instrument, ids), instrument);
      added.push(lane);
      parts[lane.id] = empty(lane.id);
    }
    if (!lane) left.push(instrument);
    if (!lane || kept.includes(lane.id)) continue;
    taken.add(lane.id);
    const hits = part.hits.flatMap((hit) => {
      const at = positionOf(hit, part.grid);
      return at < length - 1e-6 ? [{ ...hit, ...placed(Math.max(0, at), '1/16') }] : [];
    });
    const before = parts[lane.id]!;
    parts[lane.id] = { ...before, hits: inOrder([...before.hits, ...hits]) };
  }
  const all = [...lanes, ...added];
  return { parts: oneDrummer ? playableParts(pattern, all, parts, layout) : parts, added, left };
};
