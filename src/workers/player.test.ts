/** @jest-environment node */
import { lanePatternOf, newBeat, newHit } from '../../core/document/defaults';
import { newFeel } from '../../core/document/feelDefaults';
import { playable } from '../../core/play/playable';
import { planLive } from '../../core/play/timelinePlan';
import type { Beat, Voice } from '../../core/document/schema';
import type { InstrumentId } from '../../core/document/instruments';
import type { Layers } from '../../core/sound/sounds';
import { drumPlan } from '../../core/sound/voiceSound';
import type { FromWorker, ToMixer } from '../audio/messages';
import { CLICKS } from '../../core/sound/click';
import { SAMPLE_RATE, START_SECONDS } from '../audio/timing';
import { createPlayer } from './player';

const beatOf = (steps: number[], change: Partial<Beat> = {}): Beat => {
  const beat = { ...newBeat('b', 'Ferry', 7), tempo: 120, ...change };
  const [pattern] = beat.patterns;
  const kick = { ...lanePatternOf(pattern!, 'kick'), hits: steps.map((step) => newHit(step)) };
  return { ...beat, patterns: [{ ...pattern!, parts: { kick } }] };
};

/** A player with made-up ports: its page and mixer only write down what they hear. */
const room = (load?: () => Promise<Layers>) => {
  const page: FromWorker[] = [];
  const mixer: ToMixer[] = [];
  const waiting: (() => void)[] = [];
  let ms = 1;
  /** How much time passes whenever the clock is looked at. */
  let passes = 0;
  const layers: Layers = [new Float32Array(4), new Float32Array(4), new Float32Array(4), new Float32Array(4)];
  const player = createPlayer({
    toPage: (message) => page.push(message),
    now: () => (ms += passes),
    wall: () => 5000 + ms,
    later: (work) => waiting.push(work),
    load: load ?? (() => Promise.resolve(layers)),
  });
  const settle = async () => {
    for (let turn = 0; turn < 300; turn++) {
      await Promise.resolve();
      waiting.splice(0).forEach((work) => work());
    }
  };
  /** A word of the audio clock; `waited` is how long it lay unheard, in ms. */
  const clock = (seconds: number, waited = 0) => {
    ms = 1 + seconds * 1000 + waited;
    player.fromMixer({ type: 'now', frame: seconds * SAMPLE_RATE, at: 5001 + seconds * 1000 });
  };
  const of = <T extends ToMixer['type']>(type: T) =>
    mixer.filter((message): message is Extract<ToMixer, { type: T }> => message.type === type);
  const handed = () => page.flatMap((message) => (message.type === 'handed' ? message.notes : []));
  // As in a browser: what is handed over is gone from where it came.
  const connect = () =>
    player.connect({
      postMessage: (message, transfer) => mixer.push(structuredClone(message, { transfer })),
    });
  const show = (beat: Beat) => player.fromPage({ type: 'beat', beat, patternId: beat.patterns[0]!.id });
  const takes = (each: number) => void (passes = each);
  const seconds = () => (ms - 1) / 1000;
  return { player, page, mixer, settle, clock, of, handed, connect, show, takes, seconds };
};

const play = async (one: ReturnType<typeof room>, beat: Beat) => {
  one.connect();
  one.show(beat);
  await one.settle();
  one.player.fromPage({ type: 'play', countIn: 0 });
  one.clock(0.1);
};

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

describe('routes that are switched while a pattern plays', () => {
  const SWAPPED = { over: 'bar' as const, route: [5, 6, 7, 8, 1, 2, 3, 4], chance: 1, lanes: null };
  const BACKWARD = { over: 'bar' as const, route: [4, 3, 2, 1], chance: 1, lanes: null };
  // The fourth of eight slots and the fourth of four play the same two hits.
  const EIGHTHS = { over: 'bar' as const, route: [8, 7, 6, 5, 4, 3, 2, 1], chance: 1, lanes: null };
  const QUARTERS = { over: 'bar' as const, route: [4, 3, 2, 3], chance: 1, lanes: null };
  const busy = (change: Partial<Beat> = {}) =>
    beatOf(
      Array.from({ length: 16 }, (_, step) => step),
      change,
    );

  /** What is heard in the end: each batch takes the place of what waited from its first frame on. */
  const heard = (one: ReturnType<typeof room>) =>
    one.page.reduce<{ id: string; frame: number; step: number }[]>(
      (all, message) =>
        message.type === 'handed'
          ? [...all.filter(({ frame }) => frame < message.from), ...message.notes]
          : all,
      [],
    );
  const routed = (one: ReturnType<typeof room>) => one.page.findLast((message) => message.type === 'routed')!;

  test('each begins to the tick at the next slot or bar; what is heard is what the list of them plays', async () => {
    for (const change of [{}, { feel: newFeel({ percent: 62, grid: '1/16' }) }, { tempo: 171 }]) {
      const beat = busy(change);
      const one = room();
      await play(one, beat);
      const start = heard(one)[0]!.frame;
      const asks: [number, typeof SWAPPED | null, number][] = [
        [0.9, SWAPPED, 480],
        [1.45, BACKWARD, 960],
        [1.5, SWAPPED, 3840],
        [3.1, null, 480],
        [3.17, BACKWARD, 480],
        [4.02, EIGHTHS, 3840],
        [6.9, QUARTERS, 1920],
        [7.3, SWAPPED, 480],
      ];
      let asked = 0;
      for (let ms = 100; ms < 9000; ms += 20) {
        one.clock(ms / 1000);
        while (asks[asked] && asks[asked]![0] * 1000 <= ms) {
          const [, detour, every] = asks[asked++]!;
          one.player.fromPage({ type: 'route', asked, detour, every });
          const { switched, frame } = routed(one);
          const last = switched.at(-1)!;
          expect(last.detour).toEqual(detour);
          expect(last.at % every).toBe(0);
          const ahead = (frame! - (ms / 1000) * SAMPLE_RATE) / SAMPLE_RATE;
          expect(ahead).toBeGreaterThan(0.02);
          // The next one, or the one after where a stroke was on its way.
          expect(ahead).toBeLessThan(0.03 + (2 * every) / 960 / (beat.tempo / 60));
        }
      }
      const { switched } = routed(one);
      const plan = playable(planLive(beat, beat.patterns[0]!, { switched }));
      const wanted = plan
        .notes(0, plan.tickAt(9))
        .map(({ tick, step }) => [start + Math.round(plan.secondsAt(tick) * SAMPLE_RATE), step]);
      const all = heard(one).filter(({ frame }) => frame < start + 9 * SAMPLE_RATE);
      expect(all.map(({ frame, step }) => [frame, step])).toEqual(wanted);
      expect(new Set(all.map(({ id }) => id)).size).toBe(all.length);
    }
  });

  test('a stroke that is played ahead and on its way already keeps its slot: the next one is the first of the new route', async () => {
    const beat = busy({ feel: { ...newFeel(), lanes: { kick: { offset: -40 } } } });
    const one = room();
    await play(one, beat);
    // 20 ms before the stroke of 480 is heard, which sounds 40 ms ahead of its slot.
    const [first] = heard(one);
    const slot = first!.frame / SAMPLE_RATE + 0.25;
    one.clock(slot - 0.06);
    one.player.fromPage({ type: 'route', asked: 1, detour: SWAPPED, every: 480 });
    expect(routed(one).switched.at(-1)!.at).toBe(960);
    const notes = heard(one);
    expect(new Set(notes.map(({ id }) => id)).size).toBe(notes.length);
  });

  test('one that the page sets by hand falls on a slot too; its word of what is heard already changes nothing', async () => {
    const beat = busy();
    const one = room();
    await play(one, beat);
    one.clock(1);
    const turned = { ...beat, patterns: [{ ...beat.patterns[0]!, detour: SWAPPED }] };
    one.show(turned);
    const { switched } = routed(one);
    expect(switched).toHaveLength(2);
    expect(switched[1]!.at % 480).toBe(0);
    one.player.fromPage({ type: 'route', asked: 1, detour: BACKWARD, every: 960 });
    const after = routed(one).switched;
    one.show({ ...beat, patterns: [{ ...beat.patterns[0]!, detour: BACKWARD }] });
    expect(routed(one).switched).toBe(after);
  });

  test('without a pattern that plays by itself it says so, and play begins with the pattern as it is', async () => {
    const one = room();
    one.connect();
    one.show(busy());
    one.player.fromPage({ type: 'route', asked: 7, detour: SWAPPED, every: 480 });
    expect(routed(one)).toMatchObject({ asked: 7, frame: null });
    await play(one, busy());
    expect(routed(one).switched).toEqual([{ at: 0, detour: null }]);
  });
});

describe("a player that takes another one's place", () => {
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
    const drums = one.of('sound').filter(({ index }) => index < 100_000);
    expect(drums.length).toBeGreaterThan(0);
    expect(drums.every(({ index }) => index >= 4096 && index < 8192)).toBe(true);
    one.player.fromPage({ type: 'tidy' });
    expect(one.of('keep')).toEqual([{ type: 'keep', from: 4096, below: 8192 }]);
  });
});
