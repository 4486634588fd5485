/**
 * A player that takes another one's place, for another audio clock or for none.
 *
 * @jest-environment node
 */
import { newFeel } from '../../core/document/feelDefaults';
import type { GivenSound } from '../audio/messages';
import type { Voice } from '../../core/document/schema';
import type { Layers } from '../../core/samples/sounds';
import { CLICKS } from '../../core/mix/click';
import { drumPlan } from '../../core/samples/voiceSound';
import { SAMPLE_RATE } from '../audio/timing';
import { beatOf, play, room } from './__mocks__/playerRoom';

const anchorOf = (one: ReturnType<typeof room>) =>
  one.page.flatMap((message) => (message.type === 'anchor' ? [message] : []))[0]!;
const routesOf = (one: ReturnType<typeof room>) =>
  one.page.flatMap((message) => (message.type === 'routed' ? [message.switched] : [])).at(-1)!;

test.each([0, 960])(
  'goes on to the frame where it was, with a count-in of %i ticks before',
  async (countIn) => {
    const feel = { ...newFeel(), swing: { grid: '1/16' as const, percent: 66 } };
    const beat = beatOf([0, 3, 4, 7, 10, 13], { feel, tempo: 113 });
    const [first, second] = [room(), room()];
    first.connect();
    first.show(beat);
    await first.settle();
    first.player.fromPage({ type: 'play', countIn });
    for (let at = 0.1; at < 9; at += 0.05) first.clock(at);
    const { frame, tick } = anchorOf(first);
    const from = 4 * SAMPLE_RATE;
    second.clock(from / SAMPLE_RATE);
    second.connect();
    second.show(beat);
    await second.settle();
    second.player.fromPage({
      type: 'play',
      countIn: 0,
      resume: { frame, tick, switched: routesOf(first) },
    });
    for (let at = 4.01; at < 9; at += 0.05) second.clock(at);
    const until = 9 * SAMPLE_RATE;
    const heard = (one: ReturnType<typeof room>, begin: number) =>
      one
        .handed()
        .filter((note) => note.frame >= begin && note.frame < until)
        .map(({ frame: at, id, velocity, note }) => [at, id, velocity, note]);
    const begin = second.of('replan')[0]!.from;
    expect(begin).toBeGreaterThan(from);
    expect(begin - from).toBeLessThan(0.2 * SAMPLE_RATE);
    expect(heard(second, begin).length).toBeGreaterThan(10);
    expect(heard(second, begin)).toEqual(heard(first, begin));
    // Nothing that the mixer has by then is taken back.
    expect(second.of('replan').every((message) => message.from >= begin)).toBe(true);
  },
);

test('goes by the route that the one before it had been switched to', async () => {
  const beat = beatOf([0, 4, 8, 12]);
  const detour = { over: 'bar' as const, route: [7, 6, 5, 4, 3, 2, 1, 0] };
  const first = room();
  await play(first, beat);
  first.player.fromPage({ type: 'route', asked: 1, detour: detour as never, every: 480 });
  const switched = routesOf(first);
  expect(switched).toHaveLength(2);
  const second = room();
  second.connect();
  second.show(beat);
  await second.settle();
  const { frame, tick } = anchorOf(first);
  second.player.fromPage({ type: 'play', countIn: 0, resume: { frame, tick, switched } });
  second.clock(1);
  expect(routesOf(second)).toEqual(switched);
});

test('gives its sounds under numbers of its own, and has those before it dropped once they have rung out', async () => {
  const one = room();
  one.player.connect({ postMessage: (message) => one.mixer.push(message) }, 4096);
  one.show(beatOf([0, 4]));
  await one.settle();
  const drums = one.of('sound').filter(({ index }) => index < CLICKS);
  expect(drums.length).toBeGreaterThan(0);
  expect(drums.every(({ index }) => index >= 4096 && index < 8192)).toBe(true);
  one.player.fromPage({ type: 'tidy' });
  expect(one.of('keep')).toEqual([{ type: 'keep', sounds: drums.map(({ index }) => index) }]);
});

/** What a page keeps of what the mixer has been given. */
const givenBy = (one: ReturnType<typeof room>): GivenSound[] => {
  const all = new Map<string, GivenSound>();
  for (const message of one.page)
    if (message.type === 'given') {
      const { key, index, plan } = message;
      if (plan) all.set(key, { key, index, plan });
      else all.delete(key);
    }
  return [...all.values()];
};

/** No drum ever comes. */
const never = () => new Promise<Layers>(() => undefined);

const OWN: Voice = {
  choose: 'velocity',
  layers: [{ source: { kit: 'attic', drum: 'kick' }, low: 1, high: 127 }],
};

test('plays what the mixer has at once, and makes none of it again', async () => {
  const beat = beatOf([0, 3, 4, 7, 10, 13]);
  const first = room();
  await play(first, beat);
  for (let at = 0.1; at < 6; at += 0.05) first.clock(at);
  const second = room(never);
  second.connect(4096, givenBy(first));
  second.show(beat);
  const { frame, tick } = anchorOf(first);
  second.player.fromPage({ type: 'play', countIn: 0, resume: { frame, tick, switched: routesOf(first) } });
  second.clock(4);
  const [begun] = second.of('replan');
  expect(begun!.notes.length).toBeGreaterThan(5);
  const wanted = first.of('replan').flatMap(({ notes }) => notes);
  for (const note of begun!.notes) expect(wanted).toContainEqual(note);
  // The clicks are all that the mixer is given anew.
  expect(second.of('sound').every(({ index }) => index >= CLICKS)).toBe(true);
  second.player.fromPage({ type: 'tidy' });
  expect(second.of('keep')).toEqual([{ type: 'keep', sounds: givenBy(first).map(({ index }) => index) }]);
});

test('makes what only a mixer had that is gone, and play goes on without a word more', async () => {
  const beat = beatOf([0, 4]);
  const first = room();
  await play(first, beat);
  const second = room();
  second.connect(4096, givenBy(first));
  second.show(beat);
  second.player.fromPage({ type: 'play', countIn: 0 });
  second.mixer.length = 0;
  second.connect();
  await second.settle();
  second.clock(0.2);
  const numbers = second.of('sound').filter(({ index }) => index < CLICKS);
  expect(numbers.length).toBe(givenBy(first).length);
  expect(numbers.every(({ layers }) => layers.every(({ length }) => length > 0))).toBe(true);
  expect(second.handed().length).toBeGreaterThan(0);
});

test('a sound that was taken from the mixer is told as gone', async () => {
  const one = room();
  const beat = beatOf([0]);
  const lanes = beat.lanes.map((lane) => (lane.id === 'kick' ? { ...lane, voice: OWN } : lane));
  await play(one, { ...beat, lanes });
  const want = one.page.find((message) => message.type === 'want')!;
  one.player.fromPage({
    type: 'own',
    name: want.name,
    sound: { buffers: [new Float32Array(8)], plan: drumPlan(1) },
  });
  await one.settle();
  const own = () => givenBy(one).filter(({ key }) => key.startsWith('own/'));
  expect(own()).toHaveLength(1);
  const [{ index } = { index: -1 }] = own();
  one.show({ ...beat, id: 'other' });
  await one.settle();
  expect(own()).toEqual([]);
  expect(one.of('sound')).toContainEqual({ type: 'sound', index, layers: [] });
});

test('nothing is told as given before there is a mixer', async () => {
  const one = room();
  one.show(beatOf([0, 4]));
  await one.settle();
  expect(givenBy(one)).toEqual([]);
  one.connect();
  expect(givenBy(one).length).toBeGreaterThan(0);
});
