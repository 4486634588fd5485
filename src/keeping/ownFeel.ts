import type { Performance } from '../../core/analysis/performance';
import { DRUM_GROUPS, type DrumGroup } from '../../core/document/choices';
import { barTicks, type Meter } from '../../core/document/meter';
import { steadyBars } from '../../core/feel/bars';
import { ticksPerMs, type Bpm, type Ticks, type Velocity } from '../../core/units';
import type { KeyValue } from './storage';

/** What the user played in over time, as far as they let it be kept: a recording a key, so that no page can lose another's. */

export interface PlayedNote {
  at: Ticks;
  velocity: Velocity;
  group: DrumGroup;
}

/** One recording: its notes as they were played, before any quantizing, counted from where play began. */
export interface PlayedKept {
  id: string;
  bpm: Bpm;
  meter: Meter;
  notes: PlayedNote[];
}

const PREFIX = 'played/';
/** The oldest recordings go when there are more notes than this in all. */
export const MOST_NOTES = 20_000;
const REST_MS = 800;

const isNumber = (value: unknown): value is number => typeof value === 'number' && Number.isFinite(value);

const readNote = (raw: unknown): PlayedNote[] => {
  const { at, velocity, group } = (raw ?? {}) as Partial<PlayedNote>;
  return isNumber(at) && isNumber(velocity) && DRUM_GROUPS.includes(group as DrumGroup)
    ? [{ at, velocity, group: group! }]
    : [];
};

const read = (id: string, text: string | null): PlayedKept | null => {
  try {
    const { bpm, meter, notes } = JSON.parse(text ?? '') as Partial<PlayedKept>;
    const fits = isNumber(bpm) && bpm > 0 && isNumber(meter?.beats) && isNumber(meter?.unit);
    return fits && Array.isArray(notes) ? { id, bpm, meter: meter!, notes: notes.flatMap(readNote) } : null;
  } catch {
    return null;
  }
};

/** All recordings that are kept, the oldest first. What cannot be read is passed over. */
export const playedIn = async (storage: KeyValue): Promise<PlayedKept[]> => {
  const keys = (await storage.getAllKeys()).filter((key) => key.startsWith(PREFIX)).sort();
  const texts = await storage.getMany(keys);
  return keys.flatMap((key) => read(key.slice(PREFIX.length), texts[key] ?? null) ?? []);
};

/** Forgets all of it. */
export const forgetPlayed = async (storage: KeyValue): Promise<void> => {
  await storage.removeMany((await storage.getAllKeys()).filter((key) => key.startsWith(PREFIX)));
};

/** Keeps a recording, in the place of what was kept of it before; the oldest go where there are too many notes. */
export const keepPlayed = async (storage: KeyValue, { id, ...rest }: PlayedKept): Promise<void> => {
  await storage.setMany({ [PREFIX + id]: JSON.stringify(rest) });
  const all = await playedIn(storage);
  let many = all.reduce((sum, { notes }) => sum + notes.length, 0);
  const gone: string[] = [];
  for (const one of all) {
    if (many <= MOST_NOTES || one.id === id) break;
    many -= one.notes.length;
    gone.push(PREFIX + one.id);
  }
  if (gone.length) await storage.removeMany(gone);
};

/** Takes down what is played in and keeps it when the hands rest. */
export const createLearner = (storage: KeyValue, onFault: (fault: unknown) => void = () => undefined) => {
  let now: PlayedKept | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const keep = () => {
    clearTimeout(timer);
    timer = undefined;
    if (now) void keepPlayed(storage, now).catch(onFault);
  };
  return {
    /** @param session which recording it belongs to */
    hear: (session: string, beat: Pick<PlayedKept, 'bpm' | 'meter'>, note: PlayedNote): void => {
      if (now?.id !== session) {
        if (timer) keep();
        now = { id: session, ...beat, notes: [] };
      }
      now.notes.push(note);
      clearTimeout(timer);
      timer = setTimeout(keep, REST_MS);
    },
    keep,
  };
};

/**
 * Recordings one after the other, each from a bar line on: those in the meter that most was played in.
 *
 * @returns null where there are none
 */
export const ownPerformance = (all: readonly PlayedKept[]): Performance | null => {
  const weight = new Map<string, number>();
  const nameOf = ({ meter }: PlayedKept) => `${meter.beats}/${meter.unit}`;
  for (const one of all) weight.set(nameOf(one), (weight.get(nameOf(one)) ?? 0) + one.notes.length);
  const [most] = [...weight].sort(([, a], [, b]) => b - a)[0] ?? [];
  const mine = all.filter((one) => nameOf(one) === most && one.notes.length);
  if (!mine.length) return null;
  const { meter } = mine[0]!;
  const bar = barTicks(meter);
  const notes: Performance['notes'] = [];
  const spans: { from: Ticks; bpm: Bpm }[] = [];
  let from = 0;
  for (const { notes: own, bpm } of mine) {
    const first = Math.floor(Math.min(...own.map(({ at }) => at + 120)) / bar) * bar;
    const last = Math.max(...own.map(({ at }) => at));
    spans.push({ from, bpm });
    for (const { at, velocity, group } of own) notes.push({ at: from + at - first, velocity, lane: group });
    from += Math.ceil((last - first + 1) / bar) * bar;
  }
  return {
    notes,
    bars: steadyBars(meter),
    meter,
    ticksPerMs: (position) => ticksPerMs((spans.findLast((span) => span.from <= position) ?? spans[0]!).bpm),
    length: from,
  };
};
