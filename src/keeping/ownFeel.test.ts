import fc from 'fast-check';
import {
  createLearner,
  forgetPlayed,
  keepPlayed,
  MOST_NOTES,
  ownPerformance,
  playedIn,
  type PlayedKept,
} from './ownFeel';
import { memory } from './storage.mock';

const meter = { beats: 4, unit: 4 } as const;
const recording = (id: string, notes: PlayedKept['notes'], bpm = 120): PlayedKept => ({
  id,
  bpm,
  meter,
  notes,
});
const note = (at: number) => ({ at, velocity: 90, group: 'snare' as const });

test('what is played in is kept when the hands rest, each recording by itself', async () => {
  jest.useFakeTimers();
  const storage = memory();
  const learner = createLearner(storage);
  learner.hear('1', { bpm: 92, meter }, note(10));
  learner.hear('1', { bpm: 92, meter }, note(970));
  expect(await playedIn(storage)).toEqual([]);
  learner.hear('2', { bpm: 100, meter }, note(5));
  await jest.advanceTimersByTimeAsync(1000);
  jest.useRealTimers();
  expect(await playedIn(storage)).toEqual([
    recording('1', [note(10), note(970)], 92),
    recording('2', [note(5)], 100),
  ]);
  await forgetPlayed(storage);
  expect(await playedIn(storage)).toEqual([]);
});

test('junk is passed over, a full storage is told, the oldest goes when there is too much', async () => {
  const storage = memory();
  await storage.setMany({
    'played/a': '{',
    'played/b': JSON.stringify({ bpm: 0, meter, notes: [] }),
    'played/c': JSON.stringify({
      bpm: 90,
      meter,
      notes: [note(1), { at: 'x' }, { ...note(2), group: 'gone' }],
    }),
  });
  expect(await playedIn(storage)).toEqual([recording('c', [note(1)], 90)]);
  const many = Array.from({ length: MOST_NOTES }, (_, at) => note(at));
  await keepPlayed(storage, recording('d', many));
  expect((await playedIn(storage)).map(({ id }) => id)).toEqual(['d']);
  const told = jest.fn();
  const full = { ...storage, setMany: () => Promise.reject(new Error('full')) };
  const learner = createLearner(full, told);
  learner.hear('e', { bpm: 90, meter }, note(1));
  learner.keep();
  await new Promise((resolve) => setTimeout(resolve, 0));
  expect(told).toHaveBeenCalledTimes(1);
});

test('recordings follow one another bar by bar, and keep where in the bar they were played', () => {
  const notes = fc.array(fc.integer({ min: 0, max: 40_000 }).map(note), { minLength: 1, maxLength: 30 });
  fc.assert(
    fc.property(fc.array(notes, { minLength: 1, maxLength: 5 }), (all) => {
      const performance = ownPerformance(all.map((one, at) => recording(String(at), one, 100 + at)))!;
      const given = all.flat();
      expect(performance.notes).toHaveLength(given.length);
      expect(performance.length % 3840).toBe(0);
      performance.notes.forEach(({ at }, place) => {
        expect((((at - given[place]!.at) % 3840) + 3840) % 3840).toBe(0);
        expect(at > -3840 && at < performance.length).toBe(true);
      });
    }),
    { seed: 19 },
  );
  expect(ownPerformance([])).toBeNull();
});
