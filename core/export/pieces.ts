import { allNotes } from '../play/driver';
import { planPasses, planSong } from '../play/timelinePlan';
import { newFeel } from '../document/feelDefaults';
import { INSTRUMENTS } from '../document/instruments';
import { barTicks } from '../document/meter';
import type { Beat, Pattern } from '../document/schema';
import { GENERAL_MIDI } from '../midi/drumMap/drumMap';
import { laneCrossings, writtenWith } from '../midi/drumMap/laneMap';
import { patternOf } from '../document/defaults';
import type { LoopEdges } from '../play/edges';
import type { Note } from '../play/notes';
import { songFaults, type Span } from '../play/timeline';
import { type TimelinePlan } from '../play/timelinePlan';
import { type TickRange } from '../play/driver';
import { clamp } from '../units';
import type { ExportHow, ExportWhat } from './choice';

/** One stretch of music that is written by itself: a pattern, a section, a song or some bars of it. */
export interface Piece {
  /** The value of `{section}` in names. */
  name: string;
  /** Its number where there are several, from 1; null where it is alone. */
  number: number | null;
  plan: TimelinePlan;
  range: TickRange;
  edges: LoopEdges;
  /** Its notes, in order of time: worked out when it is first asked for. Not to be changed. */
  notes: () => readonly Note[];
}

/** A piece with its notes to be had. @example newPiece({ ...piece, name: 'Rain' }).notes().length // 6 */
export const newPiece = (of: Omit<Piece, 'notes'>): Piece => {
  let notes: Note[] | null = null;
  return { ...of, notes: () => (notes ??= allNotes(of.plan, of.edges, of.range)) };
};

/** The pieces, or a sentence for a person that says what is missing. */
export type Pieces = { ok: true; beat: Beat; pieces: Piece[] } | { ok: false; error: string };

const fault = (error: string): Pieces => ({ ok: false, error });

/**
 * A beat without its feels: every hit where it was programmed.
 *
 * @example straightened({ ...beat, feel: newFeel({ percent: 60, grid: '1/16' }) }).feel.base // "swing"
 */
export const straightened = (beat: Beat): Beat => ({
  ...beat,
  feel: newFeel(),
  patterns: beat.patterns.map(({ feel: _feel, ...pattern }) => pattern),
  song: {
    ...beat.song,
    sections: beat.song.sections.map(({ feel: _feel, change, ...section }) => {
      const { swing: _swing, ...rest } = change ?? {};
      return Object.keys(rest).length ? { ...section, change: rest } : section;
    }),
  },
});

/**
 * The beat as it is written: with the map and without the feel that were asked for.
 *
 * @example asWritten(beat, { map: null, straight: false }) === beat // true
 */
export const asWritten = (beat: Beat, { map, straight }: Pick<ExportHow, 'map' | 'straight'>): Beat => {
  const mapped = map ? writtenWith(beat, map, { keep: 'instruments', as: {} }) : beat;
  return straight ? straightened(mapped) : mapped;
};

const whole = (plan: TimelinePlan): TickRange => ({ from: 0, to: plan.timeline.length });

const ofPattern = (
  beat: Beat,
  pattern: Pattern,
  how: ExportHow,
  name: string,
  number: number | null,
): Piece => {
  const plan = planPasses(beat, pattern, how.passes, { includeMuted: how.includeMuted });
  return newPiece({ name, number, plan, range: whole(plan), edges: how.edges });
};

/** A section's stretch of the song: in a loop its own early notes come round. */
const ofSpans = (plan: TimelinePlan, spans: Span[], how: ExportHow, number: number | null): Piece => {
  const first = spans[0]!;
  const last = spans[spans.length - 1]!;
  return newPiece({
    name: first.section?.name ?? '',
    number,
    plan,
    range: { from: first.from, to: last.from + last.length },
    edges: how.edges,
  });
};

/** The bars that there are of those that were asked for, from 1. @example heldBars({ from: 70, to: 90 }, 76) // { from: 70, to: 76 } */
export const heldBars = ({ from, to }: ExportWhat['bars'], bars: number): ExportWhat['bars'] => {
  const first = clamp(Math.round(from), 1, bars);
  return { from: first, to: clamp(Math.round(to), first, bars) };
};

const EMPTY_SONG = 'The song is empty: add a section on the Song screen, or choose a pattern.';

const songPieces = (beat: Beat, how: ExportHow, what: ExportWhat): Pieces => {
  const plan = planSong(beat, { includeMuted: how.includeMuted });
  const { timeline } = plan;
  if (timeline.length <= 0) return fault(EMPTY_SONG);
  const spansOf = (placeId: string) => timeline.spans.filter(({ place }) => place?.id === placeId);
  const give = (pieces: Piece[]): Pieces => ({ ok: true, beat, pieces });
  if (how.scope === 'song')
    return give([newPiece({ name: 'Song', number: null, plan, range: whole(plan), edges: 'hold' })]);
  if (how.scope === 'range') {
    const { from, to } = heldBars(what.bars, timeline.bars.length);
    const last = timeline.bars[to - 1]!;
    const range = { from: timeline.bars[from - 1]!.from, to: last.from + barTicks(last.meter) };
    return give([
      newPiece({
        name: from === to ? `bar-${from}` : `bars-${from}-${to}`,
        number: null,
        plan,
        range,
        edges: how.edges,
      }),
    ]);
  }
  const places = beat.song.order.filter(({ id }) => spansOf(id).length);
  if (how.scope === 'sections')
    return give(places.map(({ id }, at) => ofSpans(plan, spansOf(id), how, at + 1)));
  const place = places.find(({ id }) => id === what.placeId) ?? places[0]!;
  return give([ofSpans(plan, spansOf(place.id), how, null)]);
};

/**
 * The pieces that a choice writes of a beat.
 *
 * @returns a sentence where there is nothing that could be written
 * @example
 * piecesOf(beat, { ...HOW_DEFAULTS, scope: 'tray' }, WHAT_DEFAULTS)
 * // { ok: false, error: "The tray is empty: set patterns or grooves aside in it first." }
 */
export const piecesOf = (original: Beat, how: ExportHow, what: ExportWhat): Pieces => {
  const beat = asWritten(original, how);
  switch (how.scope) {
    case 'pattern': {
      const pattern = patternOf(beat, what.patternId);
      return { ok: true, beat, pieces: [ofPattern(beat, pattern, how, pattern.name, null)] };
    }
    case 'patterns':
      return {
        ok: true,
        beat,
        pieces: beat.patterns.map((pattern, at) => ofPattern(beat, pattern, how, pattern.name, at + 1)),
      };
    case 'tray': {
      const pieces = beat.tray.flatMap(({ name, patternId }, at) => {
        const pattern = beat.patterns.find(({ id }) => id === patternId);
        return pattern ? [ofPattern(beat, pattern, how, name, at + 1)] : [];
      });
      if (!pieces.length) return fault('The tray is empty: set patterns or grooves aside in it first.');
      return { ok: true, beat, pieces };
    }
    default:
      return songPieces(beat, how, what);
  }
};

/** Remarks about the numbers that lanes are written with; sound and paper know none. */
const numbersTold = (original: Beat, beat: Beat, how: ExportHow): string[] => {
  const out: string[] = [];
  if (how.map)
    for (const { lane, kind, as, to } of laneCrossings(original, how.map))
      if (kind === 'near' && as && to)
        out.push(
          `${lane.name} is written as ${INSTRUMENTS[as].name} (${to.note}), the nearest that “${how.map.name}” has.`,
        );
  const map = how.map ?? original.map ?? GENERAL_MIDI;
  const shared = new Map<string, string[]>();
  for (const lane of beat.lanes) {
    const key = `${lane.channel} ${lane.note}`;
    shared.set(key, [...(shared.get(key) ?? []), lane.name]);
  }
  for (const [key, names] of shared)
    if (names.length > 1)
      out.push(
        `${names.join(' and ')} share note ${key.split(' ')[1]!}: where they meet, the louder is written.`,
      );
  const outside = beat.lanes.filter(({ note }) => !map.notes.some((one) => one.note === note));
  if (outside.length)
    out.push(
      `${outside.map(({ name, note }) => `${name} (${note})`).join(', ')} ${outside.length === 1 ? 'has a note' : 'have notes'} that “${map.name}” does not have; ${outside.length === 1 ? 'it keeps its number' : 'they keep their numbers'}.`,
    );
  return out;
};

/**
 * The remarks about a choice: lanes that meet on a number or that the map does not have, patterns that are gone.
 *
 * @example warningsOf(beat, beat, HOW_DEFAULTS) // []
 */
export const warningsOf = (original: Beat, beat: Beat, how: ExportHow): string[] => {
  const song = ['song', 'sections', 'section', 'range'].includes(how.scope);
  const out = song ? songFaults(beat) : [];
  if (how.scope === 'tray')
    for (const { name, patternId } of beat.tray)
      if (!beat.patterns.some(({ id }) => id === patternId))
        out.push(`The pattern of “${name}” in the tray was deleted: it is left out.`);
  if (how.kind === 'midi') out.push(...numbersTold(original, beat, how));
  return out;
};
