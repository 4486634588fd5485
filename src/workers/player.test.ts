/** @jest-environment node */
import type { Voice } from '../../core/document/schema';
import type { InstrumentId } from '../../core/document/instruments';
import type { Layers } from '../../core/samples/sounds';
import { drumPlan } from '../../core/samples/voiceSound';
import { CLICKS } from '../../core/mix/click';
import { SAMPLE_RATE, START_SECONDS } from '../audio/timing';
import { beatOf, play, room } from './__mocks__/playerRoom';

test('a word of the clock that waited while sounds were made tells how late it is: nothing begins too soon', async () => {
  for (const waited of [0, 150, 900]) {
    const one = room();
    one.connect();
    one.show(beatOf([0, 4]));
    await one.settle();
    one.player.fromPage({ type: 'play', countIn: 0 });
    one.clock(0.1, waited);
    expect(one.handed()[0]!.frame).toBeCloseTo((0.1 + waited / 1000 + START_SECONDS) * SAMPLE_RATE, 0);
  }
});

test('it begins once beat, mixer, clock and sounds are there, and hands over what is played', async () => {
  const one = room();
  one.player.fromPage({ type: 'play', countIn: 0 });
  one.connect();
  one.clock(0.1);
  expect(one.handed()).toEqual([]);
  one.show(beatOf([0, 4, 8]));
  await one.settle();
  one.clock(0.2);
  const [first, second] = one.handed();
  expect(second!.frame - first!.frame).toBe(SAMPLE_RATE / 2);
  expect(one.handed().every(({ lane, note }) => lane === 0 && note === 36)).toBe(true);
  expect(one.page.find(({ type }) => type === 'anchor')).toMatchObject({
    tick: 0,
    patternId: 'a',
    tempo: 120,
  });
  // Each lane that is wanted has its sound, and none twice.
  const numbers = one.of('sound').map(({ index }) => index);
  expect(new Set(numbers).size).toBe(numbers.length);
});

test('an edit replaces what is still to come, and nothing that has sounded', async () => {
  const one = room();
  await play(one, beatOf([0, 4, 8, 12]));
  const before = one.handed();
  one.page.length = 0;
  one.clock(1);
  one.show(beatOf([0, 4, 8, 14]));
  const from = one.page.flatMap((message) => (message.type === 'handed' ? [message.from] : [])).at(-1)!;
  expect(from).toBeGreaterThan(SAMPLE_RATE);
  expect(one.handed().every(({ frame }) => frame >= from)).toBe(true);
  expect(before.some(({ frame }) => frame < from)).toBe(true);
  expect(one.of('replan').at(-1)!.from).toBe(from);
});

test('a change that takes long to be planned takes hold later, so that it is there before its first note is due', async () => {
  const one = room();
  await play(one, beatOf([0, 4, 8, 12]));
  const cut = () => one.of('replan').at(-1)!.from / SAMPLE_RATE;
  one.clock(0.5);
  one.show(beatOf([0, 2, 4]));
  // As made-up time stands still, planning takes none: 25 ms are left.
  expect(cut()).toBeCloseTo(0.525, 3);
  one.takes(60);
  one.show(beatOf([0, 3, 4]));
  one.takes(0);
  const now = one.seconds();
  one.show(beatOf([0, 4, 6]));
  expect(cut() - now).toBeGreaterThan(0.06 + 0.025 - 1e-3);
  for (let turn = 0; turn < 30; turn++) one.show(beatOf([0, 4, turn % 16]));
  expect(cut() - one.seconds()).toBeCloseTo(0.025, 2);
});

test('a change right after the start leaves no hole, however long changes took before', async () => {
  const one = room();
  await play(one, beatOf([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15]));
  one.takes(60);
  one.show(beatOf([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14]));
  one.takes(0);
  one.player.fromPage({ type: 'stop' });
  one.player.fromPage({ type: 'play', countIn: 0 });
  one.clock(4);
  one.page.length = 0;
  const begun = one.of('replan').at(-1)!;
  one.show(beatOf([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11]));
  const changed = one.of('replan').at(-1)!;
  // What the mixer has reaches up to where the change takes hold.
  expect(changed.from).toBeGreaterThan(begun.from);
  const kept = begun.notes.filter(({ frame }) => frame < changed.from);
  const all = [...kept, ...changed.notes].map(({ frame }) => frame);
  const gaps = all.slice(1, 8).map((frame, at) => frame - all[at]!);
  expect(Math.max(...gaps)).toBeLessThanOrEqual(SAMPLE_RATE / 8 + 1);
});

test('a hidden page goes on by the timer, a stop silences and nothing follows', async () => {
  const one = room();
  await play(one, beatOf([0, 4, 8, 12]));
  const many = one.handed().length;
  one.clock(2);
  one.player.wake();
  expect(one.handed().length).toBeGreaterThan(many);
  one.player.fromPage({ type: 'stop' });
  expect(one.mixer.slice(-2).map(({ type }) => type)).toEqual(['clock', 'silence']);
  one.page.length = 0;
  one.clock(3);
  one.player.wake();
  expect(one.page).toEqual([]);
});

test('another pattern begins at the end of the one that plays', async () => {
  const one = room();
  await play(one, beatOf([0]));
  const other = beatOf([2]);
  const b = { ...other, patterns: [{ ...other.patterns[0]!, id: 'b' }] };
  one.player.fromPage({ type: 'switch', beat: b, patternId: 'b', at: 'end' });
  one.clock(1);
  one.clock(2.5);
  const anchors = one.page.flatMap((message) => (message.type === 'anchor' ? [message.patternId] : []));
  expect(anchors).toContain('b');
  expect(one.handed().some(({ step }) => step === 2)).toBe(true);
});

test('the metronome clicks on every beat, stronger on the first; a count-in clicks without it', async () => {
  const one = room();
  one.player.fromPage({ type: 'metronome', metronome: { on: true, level: 1, accent: true } });
  await play(one, beatOf([]));
  const clicks = one.of('replan').flatMap(({ notes }) => notes);
  expect(clicks.length).toBeGreaterThan(3);
  const [strong, ...rest] = clicks.map(({ sound }) => sound);
  // The first of each four is the higher one.
  expect(rest.slice(0, 3)).toEqual([strong! - 1, strong! - 1, strong! - 1]);
  expect(new Set(clicks.map(({ sound }) => sound))).toEqual(new Set([CLICKS, CLICKS + 1]));
  const counted = room();
  counted.connect();
  counted.show(beatOf([]));
  await counted.settle();
  counted.player.fromPage({ type: 'play', countIn: 3840 });
  counted.clock(0.1);
  counted.clock(4);
  expect(counted.of('replan').flatMap(({ notes }) => notes)).toHaveLength(4);
});

test('sounds are handed over, not copied on the way; one that is wanted again is whole', async () => {
  const handed: number[] = [];
  const one = room();
  one.player.connect({ postMessage: (_, transfer) => handed.push(transfer.length) });
  one.show(beatOf([0]));
  await one.settle();
  expect(Math.max(...handed)).toBe(4);
  // Another mixer, after the first was lost.
  one.connect();
  await one.settle();
  const sounds = one.of('sound');
  expect(sounds.length).toBeGreaterThan(0);
  expect(sounds.every(({ layers }) => layers.every(({ length }) => length > 0))).toBe(true);
});

test('a lane whose sound is being changed keeps the old one until the new one is there, then has it at once', async () => {
  const one = room();
  const beat = beatOf([0, 2, 4, 6, 8, 10, 12, 14]);
  await play(one, beat);
  const sounds = () =>
    one
      .of('replan')
      .at(-1)!
      .notes.map(({ sound }) => sound);
  const [old] = sounds();
  const own: Voice = {
    choose: 'velocity',
    layers: [{ source: { kit: 'attic', drum: 'kick' }, low: 1, high: 127 }],
  };
  one.show({
    ...beat,
    lanes: beat.lanes.map((lane) => (lane.id === 'kick' ? { ...lane, voice: own } : lane)),
  });
  await one.settle();
  expect(new Set(sounds())).toEqual(new Set([old]));
  const want = one.page.find((message) => message.type === 'want')!;
  const sound = { buffers: [new Float32Array(8)], plan: drumPlan(1) };
  one.player.fromPage({ type: 'own', name: want.name, sound });
  await one.settle();
  expect(sounds().length).toBeGreaterThan(0);
  expect(sounds()).not.toContain(old);
});

test('one’s own sound that cannot be worked out is asked for again; one whose samples are missing has a stand-in', async () => {
  const one = room();
  const own: Voice = {
    choose: 'velocity',
    layers: [{ source: { kit: 'attic', drum: 'kick' }, low: 1, high: 127 }],
  };
  const beat = beatOf([0]);
  const with1 = {
    ...beat,
    lanes: beat.lanes.map((lane) => (lane.id === 'kick' ? { ...lane, voice: own } : lane)),
  };
  await play(one, with1);
  const wants = () => one.page.filter((message) => message.type === 'want');
  expect(wants()).toHaveLength(1);
  expect(one.handed()).toEqual([]);
  one.player.fromPage({ type: 'own', name: wants()[0]!.name, failed: true });
  await one.settle();
  one.show({ ...with1 });
  await one.settle();
  expect(wants()).toHaveLength(2);
  one.player.fromPage({ type: 'own', name: wants()[1]!.name, sound: null });
  await one.settle();
  one.clock(0.3);
  expect(one.handed().length).toBeGreaterThan(0);
});

test('sounds of one’s own are asked for all at once, each once', async () => {
  const one = room();
  const drum = (drum: InstrumentId): Voice => ({
    choose: 'velocity',
    layers: [{ source: { kit: 'attic', drum }, low: 1, high: 127 }],
  });
  const beat = beatOf([0]);
  await play(one, {
    ...beat,
    lanes: beat.lanes.map((lane, at) => (at < 3 ? { ...lane, voice: drum(lane.instrument) } : lane)),
  });
  const wants = one.page.flatMap((message) => (message.type === 'want' ? [message.name] : []));
  expect(wants).toHaveLength(3);
  for (const name of wants.reverse())
    one.player.fromPage({ type: 'own', name, sound: { buffers: [new Float32Array(8)], plan: drumPlan(1) } });
  await one.settle();
  one.clock(0.3);
  expect(one.handed().length).toBeGreaterThan(0);
});

test('a lane is struck by itself, its sound made for it; one that is not there is left alone', async () => {
  const one = room();
  one.connect();
  one.show(beatOf([]));
  one.player.fromPage({ type: 'strike', laneId: 'snare', velocity: 100 });
  one.player.fromPage({ type: 'strike', laneId: 'nobody', velocity: 100 });
  await one.settle();
  one.player.fromPage({ type: 'strike', laneId: 'snare', velocity: 50 });
  const strikes = one.of('strike').flatMap(({ notes }) => notes);
  expect(strikes).toHaveLength(2);
  expect(strikes[1]!.sound).toBe(strikes[0]!.sound);
  expect(strikes[1]!.left).toBeLessThan(strikes[0]!.left);
});

test('a sound that cannot be made holds nothing up for good: it is asked for again with the next word', async () => {
  let refused = 1;
  const layers: Layers = [0, 1, 2, 3].map(() => new Float32Array(4));
  const one = room(() => (refused-- > 0 ? Promise.reject(new Error('gone')) : Promise.resolve(layers)));
  await play(one, beatOf([0]));
  expect(one.handed()).toEqual([]);
  one.show(beatOf([0]));
  await one.settle();
  one.clock(0.3);
  expect(one.handed().length).toBeGreaterThan(0);
});

test('what was heard is told, by the mixer where there is one', () => {
  const one = room();
  one.player.fromPage({ type: 'report' });
  expect(one.page).toEqual([{ type: 'report', report: { late: 0, worst: 0, started: [] } }]);
  one.connect();
  one.player.fromPage({ type: 'report' });
  expect(one.of('report')).toHaveLength(1);
  one.player.fromMixer({ type: 'report', report: { late: 1, worst: 2, started: [3] } });
  expect(one.page.at(-1)).toEqual({ type: 'report', report: { late: 1, worst: 2, started: [3] } });
});

test('sounds made beforehand are there when they are wanted', async () => {
  const load = jest.fn(() => Promise.resolve([0, 1, 2, 3].map(() => new Float32Array(4))));
  const one = room(load);
  one.connect();
  one.player.fromPage({ type: 'prepare', kit: { kit: 'quay' }, instruments: ['kick', 'crash'] });
  await one.settle();
  expect(load.mock.calls.map((call) => (call as unknown[])[1])).toEqual(['kick', 'crash']);
  expect(one.of('sound').filter(({ index }) => index < 90)).toHaveLength(2);
});
