import { deviation, mean } from './statistics';
import type { InstrumentId } from '../document/instruments';
import { barStart } from '../feel/bars';
import { byLane, type Performance, type Performed } from './performance';
import type { MidiNote } from '../units';

/** The instrument that a note is taken for, by its behaviour. */
export interface Guess {
  note: MidiNote;
  instrument: InstrumentId;
  /** How certain that is, 0 to 1. */
  certainty: number;
}

/** How one instrument behaves in the bar, in numbers that can be compared. */
export type Behaviour = number[];

/** An instrument that is known, and how it behaves: what is unknown is compared with many of these. */
export interface Example {
  instrument: InstrumentId;
  behaviour: Behaviour;
}

/** Cells of a bar, and how much they count in all against the rest. */
const CELLS = 24;
const CELL_WEIGHT = 1.1;

/** Not by spreading them: there may be more than a call takes. */
const greatest = (values: number[]): number => values.reduce((most, one) => Math.max(most, one), -Infinity);

const roundedCell = (x: number): number => Math.round(x * CELLS) % CELLS;

/** Where in the bar it is struck and how hard, how dense, how steady, how loud against the others it is. */
const behaviourOf = (
  performance: Performance,
  notes: Performed[],
  all: Performed[],
  bars: number,
): Behaviour => {
  const cells = new Array<number>(CELLS).fill(0);
  for (const { at, velocity } of notes) {
    const stretch = performance.bars.at(at);
    const x = (at - barStart(stretch, at)) / stretch.bar;
    cells[roundedCell(x)]! += velocity;
  }
  const size = Math.sqrt(cells.reduce((sum, cell) => sum + cell * cell, 0)) || 1;
  const velocities = notes.map(({ velocity }) => velocity);
  const loudest = greatest(all.map(({ velocity }) => velocity));
  const most = greatest([...byLane(all).values()].map(({ length }) => length));
  const sorted = notes.map(({ at }) => at).sort((a, b) => a - b);
  const gaps = sorted.slice(1).map((at, i) => Math.log2(Math.max(60, at - sorted[i]!) / 240));
  const heard = new Set(sorted.map((at) => Math.floor(Math.max(0, at) / performance.bars.at(0).bar)));
  return [
    ...cells.map((cell) => (cell / size) * CELL_WEIGHT),
    0.25 * Math.log2(1 + notes.length / bars),
    0.5 * (notes.length / most),
    0.9 * (mean(velocities) / loudest),
    0.8 * (greatest(velocities) / loudest),
    1.2 * (deviation(velocities) / loudest),
    0.35 * (gaps.length ? deviation(gaps) : 1),
    0.3 * (heard.size / bars),
  ];
};

/** The behaviour of each lane of a performance. */
export const behaviours = (performance: Performance): Map<string, Behaviour> => {
  const { notes, length, bars } = performance;
  const count = Math.max(1, Math.round(length / bars.at(0).bar));
  return new Map(
    [...byLane(notes)].map(([lane, own]) => [lane, behaviourOf(performance, own, notes, count)]),
  );
};

const apart = (a: Behaviour, b: Behaviour): number => {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += (a[i]! - b[i]!) ** 2;
  return sum;
};

/** How many of the most alike have a say, and how soon what is further off loses it. */
const NEAREST = 25;
const SOFT = 0.12;

type Votes = Map<InstrumentId, number>;

/** The votes of the most alike examples, as shares of 1. */
/** Of two that behave alike the one that more music is played on: time is kept on the hat far more often than elsewhere. */
const COMMON: Partial<Record<InstrumentId, number>> = {
  'hat.closed': 5,
  kick: 3,
  snare: 5,
};

const votesFor = (behaviour: Behaviour, examples: Example[]): Votes => {
  const nearest = examples
    .map(({ instrument, behaviour: other }) => ({ instrument, distance: apart(behaviour, other) }))
    .sort((a, b) => a.distance - b.distance)
    .slice(0, NEAREST);
  const votes: Votes = new Map();
  let total = 0;
  for (const { instrument, distance } of nearest) {
    const vote = (Math.exp(-distance / SOFT) + 1e-6) * (COMMON[instrument] ?? 1);
    votes.set(instrument, (votes.get(instrument) ?? 0) + vote);
    total += vote;
  }
  return new Map([...votes].map(([id, vote]) => [id, vote / total]));
};

/** How much less an instrument counts for a note when another note has it already: kits have few drums twice. */
const TAKEN = 0.08;

/**
 * The instruments of a file's notes, going by how each behaves in the bar and not by its number: each is what the lanes of
 * known grooves that behave most like it are, no instrument given twice if it can be helped. To be confirmed by ear.
 *
 * @param examples lanes that are known; with none of them nothing can be guessed
 * @returns by note number, the lowest first
 */
export const guessMap = (performance: Performance, examples: Example[]): Guess[] => {
  if (!examples.length) return [];
  const open = [...behaviours(performance)].map(([lane, behaviour]) => ({
    note: Number(lane.split('/')[1] ?? lane),
    votes: votesFor(behaviour, examples),
  }));
  const out: Guess[] = [];
  const taken = new Set<InstrumentId>();
  // The most certain first: what it is leaves less to choose from for the others.
  while (open.length) {
    let best = { at: 0, instrument: 'kick' as InstrumentId, share: -1, raw: 0 };
    open.forEach(({ votes }, at) => {
      for (const [instrument, raw] of votes) {
        const share = taken.has(instrument) ? raw * TAKEN : raw;
        if (share > best.share) best = { at, instrument, share, raw };
      }
    });
    const [{ note }] = open.splice(best.at, 1) as [(typeof open)[number]];
    taken.add(best.instrument);
    out.push({ note, instrument: best.instrument, certainty: Math.min(1, best.share) });
  }
  return out.sort((a, b) => a.note - b.note);
};
