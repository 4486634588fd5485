import { newBeat } from '../../core/document/defaults';
import type { ToWorker } from './messages';
import { createRenewals } from './renewals';
import { afterWord, NOTHING_TOLD, type Told } from './told';

const beatOf = (name: string) => newBeat('b', name, 1);
const beat = (name: string, patternId: string): ToWorker => ({ type: 'beat', beat: beatOf(name), patternId });
const turn = (name: string, patternId: string): ToWorker => ({
  type: 'switch',
  beat: beatOf(name),
  patternId,
  at: 'end',
});
const after = (words: [ToWorker, boolean, string | null][]): Told =>
  words.reduce((told, [word, playing, heard]) => afterWord(told, word, playing, heard), NOTHING_TOLD);
const names = ({ beat: plays, next }: Told) => [
  plays && `${plays.beat.name} ${plays.patternId}`,
  next && `${next.beat.name} ${next.patternId}`,
];

test('a pattern waits for its turn, is edited while it waits, and then is what plays', () => {
  const waiting = after([
    [beat('One', 'a'), true, null],
    [turn('Two', 'b'), true, 'a'],
  ]);
  expect(names(waiting)).toEqual(['One a', 'Two b']);
  const edited = afterWord(waiting, beat('Three', 'b'), true, 'a');
  expect(names(edited)).toEqual(['One a', 'Three b']);
  expect(names(afterWord(edited, beat('Four', 'b'), true, 'b'))).toEqual(['Four b', null]);
});

test('stopped before its turn came, the pattern that waited is what plays next', () => {
  const stopped = after([
    [beat('One', 'a'), true, null],
    [turn('Two', 'b'), true, 'a'],
    [{ type: 'stop' }, false, 'a'],
  ]);
  expect(names(stopped)).toEqual(['Two b', null]);
});

test('while nothing plays no pattern waits; the click is kept beside', () => {
  const metronome = { type: 'metronome', metronome: { on: true, level: 1, accent: true } } as const;
  const told = after([
    [beat('One', 'a'), false, null],
    [metronome, false, null],
    [turn('Two', 'b'), false, null],
    [{ type: 'report' }, false, null],
  ]);
  expect(names(told)).toEqual(['Two b', null]);
  expect(told.metronome).toBe(metronome);
});

test('made anew four times within fifteen seconds, with longer pauses; then it is told, unless it is asked for once more', () => {
  let now = 0;
  const renewals = createRenewals(() => now);
  const four = () => Array.from({ length: 4 }, () => renewals.next());
  expect(four()).toEqual([0, 150, 500, 1000]);
  expect(renewals.next()).toBeNull();
  renewals.forget();
  expect(four()).toEqual([0, 150, 500, 1000]);
  now = 15_000;
  expect(renewals.next()).toBe(0);
});
