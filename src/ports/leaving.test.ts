import fc from 'fast-check';
import { EMPTY_LANE_PATTERN, newBeat, newHit, newLane } from '../../core/document/defaults';
import { newFeel } from '../../core/document/feelDefaults';
import type { Beat, Pattern } from '../../core/document/schema';
import { createOutbox } from '../../core/ports/outbox';
import { playable } from '../../core/play/playable';
import { planLive } from '../../core/play/timelinePlan';
import { change, identity, startFeeder, wake, type Batch } from '../audio/feeder';
import { SAMPLE_RATE } from '../audio/timing';
import { firstBar } from './firstBar';
import type { MidiBytes } from '../../core/ports/midiStream';
import { createFollowing } from './following';
import { createSending } from './sending';
import { NO_SETTING } from './settings';

describe('a device beside edits', () => {
  const RATE = SAMPLE_RATE;
  /** Sixteen drums, one a step of the bar: each is due once in two seconds, whatever the swing. */
  const beat: Beat = {
    ...newBeat('b', 'Ferry', 3),
    tempo: 120,
    lanes: Array.from({ length: 16 }, (_, at) => ({ ...newLane(`l${at}`, 'hat.closed'), note: 40 + at })),
  };
  const pattern: Pattern = {
    ...beat.patterns[0]!,
    parts: Object.fromEntries(
      beat.lanes.map(({ id }, step) => [id, { ...EMPTY_LANE_PATTERN, hits: [newHit(step)] }]),
    ),
  };
  const swung = (percent: number) => {
    const now = { ...beat, feel: newFeel({ percent, grid: '1/16' }), patterns: [pattern] };
    return playable(planLive(now, pattern));
  };
  const plans = [50, 54, 58, 62, 66, 70, 75].map(swung);

  /** Plays and edits; what the worker says comes to the page some ms late. @returns when each drum was struck, in ms */
  const played = (clears: boolean, edits: number, roll: () => number) => {
    let now = 0;
    const strikes = new Map<number, number[]>();
    let queue: { bytes: MidiBytes; time: number }[] = [];
    const out = {
      // What is due leaves at once, and can be taken back no more.
      send: (bytes: MidiBytes, time: number) => {
        queue.push({ bytes, time });
        leave();
      },
      ...(clears && { clear: () => void (queue = []) }),
    };
    const leave = () => {
      for (const { bytes, time } of queue.filter((one) => one.time <= now))
        if ((bytes[0]! & 0xf0) === 0x90)
          strikes.set(bytes[1]!, [...(strikes.get(bytes[1]!) ?? []), Math.max(time, 0)]);
      queue = queue.filter((one) => one.time > now);
    };
    const outbox = createOutbox(out, () => now);
    const sending = createSending({
      hub: {
        outs: () => [{ name: 'Module', setting: { ...NO_SETTING, notes: true }, outbox, send: out.send }],
      },
      timeOfFrame: (frame) => (frame * 1000) / RATE,
      lanes: () => beat.lanes.map(({ id }) => id),
      now: () => now,
      soon: () => undefined,
    });
    const letters: { due: number; give: () => void }[] = [];
    const feeder = startFeeder(plans[0]!, RATE, 0.1 * RATE);
    const post = (batch: Batch | null) => {
      if (!batch) return;
      const { until } = feeder;
      const notes = batch.notes.map((one) => ({
        id: identity(one),
        frame: one.frame,
        lane: one.lane,
        step: one.step,
        stroke: one.stroke,
        note: one.note,
        velocity: one.velocity,
        channel: one.channel,
        frames: 1000,
      }));
      const last = letters.at(-1)?.due ?? 0;
      // A page that is busy hears of it late, and of each in its order.
      const due = Math.max(last, now + roll() * 90);
      letters.push({ due, give: () => sending.handed(batch.from, until, notes, batch.fresh ?? false) });
    };
    for (let edit = 0; edit < edits;) {
      now += 4;
      leave();
      while (letters.length && letters[0]!.due <= now) letters.shift()!.give();
      sending.feed();
      const frame = (now * RATE) / 1000;
      post(wake(feeder, frame));
      if (roll() < 0.08) {
        post(change(feeder, plans[Math.floor(roll() * plans.length)]!, frame));
        edit += 1;
      }
    }
    return { strikes, end: now, count: outbox.count() };
  };

  test.each([true, false])(
    '500 changes of swing while it plays: nothing doubled, nothing lost (takes back: %s)',
    (clears) => {
      let seed = clears ? 7 : 11;
      const roll = () => {
        seed = (seed * 1103515245 + 12345) % 2147483648;
        return seed / 2147483648;
      };
      const { strikes, end, count } = played(clears, 500, roll);
      const wrong: string[] = [];
      for (const { note } of beat.lanes) {
        const times = (strikes.get(note) ?? []).sort((a, b) => a - b);
        times.slice(1).forEach((time, at) => {
          const gap = time - times[at]!;
          // A bar is 2 s; the swing moves an off-step by up to 62 ms either way.
          if (gap < 1500) wrong.push(`${note} doubled after ${Math.round(gap)} ms`);
          if (gap > 2500) wrong.push(`${note} lost for ${Math.round(gap)} ms`);
        });
        expect(times.length).toBeGreaterThan(end / 2000 - 2);
      }
      expect(wrong).toEqual([]);
      expect(count.doubled).toBe(0);
    },
  );
});

describe('beat 1 of a leader', () => {
  /** A leader whose clock ticks, and what play is asked for. */
  const led = () => {
    let now = 0;
    const starts: { place: number; at: number; told: number }[] = [];
    const leaps: [number, number][] = [];
    let playing = false;
    let armed = 0;
    const following = createFollowing({
      now: () => now,
      onLeader: () => undefined,
      onSecond: () => undefined,
      start: (place, at) => {
        starts.push({ place, at, told: now });
        playing = true;
      },
      stop: () => (playing = false),
      isPlaying: () => playing,
      tickAt: () => null,
      align: () => undefined,
      arm: () => (armed += 1),
      leapt: (from, to) => void leaps.push([from, to]),
    });
    const say = (bytes: MidiBytes, time: number) => {
      now = Math.max(now, time);
      following.take('Host', bytes, time);
    };
    return { following, say, starts, leaps, armed: () => armed, wait: (time: number) => (now = time) };
  };
  const PERIOD = 60_000 / 24 / 120;

  test('a clock that ticks before: the downbeat is the tick after the start, told before it comes', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 0.95, noNaN: true }), (share) => {
        const one = led();
        for (let n = 0; n < 96; n++) {
          one.say([0xf8], n * PERIOD);
          one.following.look();
        }
        expect(one.armed()).toBeGreaterThan(0);
        one.say([0xfa], (95 + share) * PERIOD);
        expect(one.starts).toHaveLength(1);
        expect(Math.abs(one.starts[0]!.at - 96 * PERIOD)).toBeLessThan(1);
        expect(one.starts[0]!.told).toBeLessThanOrEqual(96 * PERIOD);
      }),
    );
  });

  test('start and tick at one moment, and jitter of 5 ms: within 5 ms of its tick', () => {
    for (const jitter of [0, 5, -5]) {
      const one = led();
      for (let n = 0; n < 96; n++) one.say([0xf8], n * PERIOD + (n % 2 ? jitter : -jitter));
      one.say([0xfa], 96 * PERIOD);
      one.say([0xf8], 96 * PERIOD);
      expect(one.starts).toHaveLength(1);
      expect(Math.abs(one.starts[0]!.at - 96 * PERIOD)).toBeLessThan(5);
    }
  });

  test('a clock that begins with the start: the downbeat is its first tick; where none comes, the start itself', () => {
    const one = led();
    one.say([0xfa], 1000);
    expect(one.starts).toEqual([]);
    one.say([0xf8], 1010);
    expect(one.starts).toEqual([{ place: 0, at: 1010, told: 1010 }]);
    const two = led();
    two.say([0xfa], 1000);
    two.wait(1100);
    two.following.look();
    expect(two.starts).toEqual([{ place: 0, at: 1000, told: 1100 }]);
  });

  test('a leap is told with where it went from', () => {
    const one = led();
    one.say([0xfa], 0);
    for (let n = 0; n < 96; n++) one.say([0xf8], n * PERIOD);
    one.say([0xf2, 0, 0], 96 * PERIOD);
    expect(one.leaps).toEqual([[3840, 0]]);
  });

  test('the first bar is what the player would hand over, stroke by stroke', () => {
    const beat = { ...newBeat('b', 'Ferry', 3), tempo: 120, feel: newFeel({ percent: 60, grid: '1/16' }) };
    const parts = { kick: { ...EMPTY_LANE_PATTERN, hits: [newHit(0), newHit(5)] } };
    const patterns = [{ ...beat.patterns[0]!, parts }];
    const notes = firstBar({ beat: { ...beat, patterns }, patternId: 'a', from: null });
    expect(notes.map(({ ms, note, channel }) => [Math.round(ms), note, channel])).toEqual([
      [0, 36, 10],
      [650, 36, 10],
    ]);
    const feeder = startFeeder(playable(planLive({ ...beat, patterns }, patterns[0]!)), SAMPLE_RATE, 0);
    expect(wake(feeder, 0)!.notes.slice(0, 2).map(identity)).toEqual(notes.map(({ id }) => id));
  });

  test('let go of at once, the bar is not sent again when the sound here is awake', () => {
    let now = 0;
    const sent: { bytes: MidiBytes; time: number }[] = [];
    const outbox = createOutbox({ send: (bytes, time) => void sent.push({ bytes, time }) }, () => now);
    const sending = createSending({
      hub: {
        outs: () => [{ name: 'M', setting: { ...NO_SETTING, notes: true }, outbox, send: () => undefined }],
      },
      timeOfFrame: (frame) => (frame * 1000) / SAMPLE_RATE,
      lanes: () => ['kick'],
      now: () => now,
      soon: () => undefined,
    });
    const bar = [0, 250].map((ms, at) => ({
      id: `${at}`,
      ms,
      length: 20,
      lane: 0,
      note: 36,
      velocity: 90,
      channel: 10,
    }));
    now = 1000;
    sending.letGo(bar, 1002);
    expect(sent.filter(({ bytes }) => bytes[0] === 0x99).map(({ time }) => time)).toEqual([1002, 1252]);
    // 170 ms later the player says the same.
    now = 1170;
    const handed = bar.map(({ id, ms }) => ({
      id,
      frame: ((1002 + ms) * SAMPLE_RATE) / 1000,
      lane: 0,
      step: 0,
      stroke: 0,
      note: 36,
      velocity: 90,
      channel: 10,
      frames: 960,
    }));
    sending.handed(handed[0]!.frame, handed[0]!.frame + SAMPLE_RATE, handed);
    now = 3000;
    sending.feed();
    expect(sent.filter(({ bytes }) => bytes[0] === 0x99).map(({ time }) => time)).toEqual([1002, 1252]);
    expect(outbox.count()).toEqual({ late: 0, doubled: 0 });
  });
});
