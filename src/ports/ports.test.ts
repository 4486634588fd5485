import fc from 'fast-check';
import { EMPTY_LANE_PATTERN, newBeat, newHit, newLane } from '../../core/document/defaults';
import { newFeel } from '../../core/document/feelDefaults';
import type { Beat, Pattern } from '../../core/document/schema';
import { createOutbox } from '../../core/outside/outbox';
import { playable } from '../../core/play/playable';
import { planLive } from '../../core/play/timelinePlan';
import { change, identity, startFeeder, wake, type Batch } from '../audio/feeder';
import { SAMPLE_RATE } from '../audio/timing';
import { firstBar } from './firstBar';
import { beatOpened } from '../state/doc';
import { viewChanged } from '../state/slices';
import { createStore } from '../state/store';
import { createPatternNotes } from './patternNotes';
import type { MidiBytes } from '../../core/outside/midiStream';
import { createCable, plugIn, type Cable, type CableWord } from './cable';
import { createFollowing, LOOK_MS } from './following';
import { createHub, type HubParts } from './hub';
import { createSending } from './sending';
import { firstSetting, NO_SETTING, readPortSettings, type PortSetting } from './settings';

/** A channel of the browser: what one end says, all others hear. */
const channel = () => {
  const ends = new Set<Cable>();
  const open = (): Cable => {
    const end: Cable = {
      onmessage: null,
      postMessage: (word: CableWord) => {
        for (const other of [...ends])
          if (other !== end) other.onmessage?.({ data: JSON.parse(JSON.stringify(word)) });
      },
      close: () => void ends.delete(end),
    };
    ends.add(end);
    return end;
  };
  return open;
};

const setUp = (settings: HubParts['settings'] = {}) => {
  const open = channel();
  let now = 1000;
  const taken: { name: string; bytes: MidiBytes; time: number }[] = [];
  const plugs: string[] = [];
  const lost: number[] = [];
  const kept: string[] = [];
  const hub = createHub({
    now: () => now,
    settings,
    take: (name, _, bytes, time) => void taken.push({ name, bytes, time }),
    onPlug: (name, there) => void plugs.push(`${there ? '+' : '-'}${name}`),
    onLost: (_, bytes) => void lost.push(bytes),
    onSettings: (all) => void kept.push(JSON.stringify(all)),
  });
  // The app's page began a second later than the stand-in's: its clock stands so much lower.
  hub.add(createCable(open(), { now: () => now, origin: 1000 }));
  const device = (
    id: string,
    name: string,
    heard: { bytes: MidiBytes; time: number }[] = [],
    cleared: string[] = [],
  ) =>
    plugIn(
      open(),
      { now: () => now + 1000, origin: 0 },
      {
        id,
        name,
        device: 'module',
        take: (bytes, time) => void heard.push({ bytes, time }),
        clear: () => void cleared.push(id),
      },
    );
  return { hub, device, taken, plugs, lost, kept, at: (time: number) => (now = time), now: () => now };
};

describe('ports', () => {
  test('a stand-in is there as soon as it is opened, speaks and hears by one clock, goes and comes back as it was set', () => {
    const { hub, device, taken, plugs, kept } = setUp();
    const heard: { bytes: MidiBytes; time: number }[] = [];
    const one = device('a', 'Module');
    const two = device('b', 'Module', heard);
    expect(hub.ports().map(({ name, there }) => [name, there])).toEqual([
      ['Module', true],
      ['Module 2', true],
    ]);
    two.send([0x99, 36, 100], 2345);
    expect(taken).toEqual([{ name: 'Module 2', bytes: [0x99, 36, 100], time: 1345 }]);
    hub
      .outs()
      .find(({ name }) => name === 'Module 2')!
      .outbox.add([0xf8], 1500);
    expect(heard).toEqual([{ bytes: [0xf8], time: 2500 }]);
    hub.set('Module', { input: 'patterns', firstPattern: 48 });
    one.close();
    expect(hub.ports().find(({ name }) => name === 'Module')).toMatchObject({ there: false });
    device('c', 'Module');
    expect(hub.ports().find(({ name }) => name === 'Module')).toMatchObject({
      there: true,
      setting: { input: 'patterns', firstPattern: 48 },
    });
    expect(plugs).toEqual(['+Module', '+Module 2', '-Module', '+Module']);
    expect(readPortSettings(kept.at(-1)!)['Module']).toMatchObject({ input: 'patterns', firstPattern: 48 });
  });

  test('a storm of ten thousand notes a second is held off and told once, and every end of a note gets through', () => {
    const { hub, device, taken, lost } = setUp();
    const one = device('a', 'Module');
    for (let n = 0; n < 10_000; n++) one.send([0x90, n % 128, 100], 2000 + n / 20);
    for (let n = 0; n < 128; n++) one.send([0x80, n, 0], 2500);
    const ons = taken.filter(({ bytes }) => bytes[0] === 0x90);
    expect(ons.length).toBeGreaterThan(1000);
    expect(ons.length).toBeLessThan(5000);
    expect(taken.filter(({ bytes }) => bytes[0] === 0x80)).toHaveLength(128);
    expect(lost.length).toBeLessThan(3);
    expect(hub.ports()).toHaveLength(1);
  });

  test('what is learnt does nothing else, until it is learnt', () => {
    const { hub, device, taken } = setUp();
    const one = device('a', 'Pads');
    const learnt: number[] = [];
    const end = hub.learn('Pads', (note) => void learnt.push(note));
    one.send([0x90, 61, 90], 2000);
    one.send([0x80, 61, 0], 2001);
    end();
    one.send([0x90, 62, 90], 2002);
    expect(learnt).toEqual([61]);
    expect(taken.map(({ bytes }) => bytes[1])).toEqual([62]);
  });

  test('what was kept is read as far as it fits', () => {
    expect(readPortSettings('{')).toEqual({});
    expect(readPortSettings('[1]')).toEqual({});
    expect(
      readPortSettings(JSON.stringify({ A: { input: 'tide', channel: 99, notes: 1, layout: {} }, B: 3 })),
    ).toEqual({
      A: NO_SETTING,
    });
    expect(firstSetting('host').input).toBe('clock');
  });
});

describe('sending', () => {
  const RATE = 48;
  const handedNotes = (from: number, until: number) => {
    const notes = [];
    for (let ms = Math.ceil(from / RATE / 125) * 125; ms < until / RATE; ms += 125)
      notes.push({
        id: `${ms}`,
        frame: ms * RATE,
        lane: (ms / 125) % 2,
        step: 0,
        stroke: 0,
        note: 36 + ((ms / 125) % 2),
        velocity: 90,
        channel: 10,
        frames: 50 * RATE,
      });
    return notes;
  };
  const outOf = (setting: Partial<PortSetting>) => {
    const { hub, device, at, now } = setUp({ Module: { ...NO_SETTING, ...setting } });
    const heard: { bytes: MidiBytes; time: number }[] = [];
    device('a', 'Module', heard);
    let work = () => undefined as void;
    let jolt = 0;
    const sending = createSending({
      hub,
      timeOfFrame: (frame) => 5000 + frame / RATE + jolt,
      lanes: () => ['kick', 'snare'],
      now,
      soon: (told) => void (work = told),
    });
    return { hub, sending, heard, at, work: () => work(), setJolt: (ms: number) => (jolt = ms) };
  };

  test('every note leaves with the time at which it is heard, though the page stands still ten times for half a second', () => {
    const { sending, heard, at } = outOf({ notes: true });
    let until = 0;
    let now = 5000;
    for (let turn = 0; turn < 30; turn++) {
      at(now);
      const to = (now - 5000 + 2500) * RATE;
      sending.handed(until, to, handedNotes(until, to));
      until = to;
      now += turn % 3 ? 40 : 500;
    }
    const ons = heard.filter(({ bytes }) => bytes[0] === 0x99);
    const due = handedNotes(0, until).map(({ frame }) => 6000 + frame / RATE);
    expect(ons.map(({ time }) => time)).toEqual(due);
    expect(heard.filter(({ bytes }) => bytes[0] === 0x89)).toHaveLength(ons.length);
  });

  test('a stop leaves the lights of a grid alone', () => {
    const { sending, heard, at, hub } = outOf({ input: 'grid' });
    at(5000);
    hub.outs()[0]!.send([0x90, 3, 64], 5000);
    sending.handed(0, 48_000, handedNotes(0, 48_000));
    sending.stopped();
    expect(heard.map(({ bytes }) => bytes)).toEqual([[0x90, 3, 64]]);
  });

  test('only chosen lanes leave, on the channel that was chosen', () => {
    const { sending, heard, at } = outOf({ notes: true, lanes: ['snare'], channel: 3 });
    at(5000);
    sending.handed(0, 2500 * RATE, handedNotes(0, 2500 * RATE));
    expect(new Set(heard.map(({ bytes }) => `${bytes[0]! & 15} ${bytes[1]}`))).toEqual(new Set(['2 37']));
  });

  test('the clock: a start, 24 ticks a quarter without jitter through changes of tempo, a stop', () => {
    const { sending, heard, at, work, setJolt } = outOf({ clock: true });
    at(5000);
    sending.handed(0, 48_000, []);
    sending.anchored({ frame: 0, tick: 0, song: null, tempo: 120 });
    work();
    // The two clocks drift by less than can be told.
    setJolt(0.7);
    sending.handed(48_000, 96_000, []);
    sending.anchored({ frame: 72_000, tick: 2880, song: null, tempo: 60 });
    work();
    const times = heard.filter(({ bytes }) => bytes[0] === 0xf8).map(({ time }) => time);
    const gaps = times.slice(1).map((time, at2) => time - times[at2]!);
    expect(heard[0]!.bytes).toEqual([0xfa]);
    expect(times[0]).toBe(6000);
    gaps.forEach((gap, n) =>
      expect(Math.abs(gap - (n < 71 ? 60_000 / 120 / 24 : n === 71 ? gap : 60_000 / 60 / 24))).toBeLessThan(
        0.5,
      ),
    );
    at(6500);
    sending.stopped();
    expect(heard.at(-1)!.bytes).toEqual([0xfc]);
  });

  test('a song that begins within begins there', () => {
    const { sending, heard, at, work } = outOf({ clock: true });
    at(5000);
    sending.handed(0, 4800, []);
    sending.anchored({ frame: 0, tick: 0, song: 3840 * 9, tempo: 120 });
    work();
    expect(heard.slice(0, 2).map(({ bytes }) => bytes)).toEqual([[0xf2, 144 & 127, 144 >> 7], [0xfb]]);
  });
});

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

const follow = () => {
  let now = 0;
  const told: (string | null)[] = [];
  const seconds: string[] = [];
  const done: string[] = [];
  let playing: { from: number; bpm: number; tick: number } | null = null;
  const following = createFollowing({
    now: () => now,
    onLeader: (leader) => {
      told.push(leader && `${leader.name} ${leader.bpm ?? '?'} ${leader.runs}`);
      // What is told is what is played at from then on.
      const tick = tickAt(now);
      if (leader?.bpm && playing && tick !== null) playing = { tick, from: now, bpm: leader.bpm };
    },
    onSecond: (name, leads) => void seconds.push(`${name} ${leads}`),
    start: (place) => {
      done.push(`start ${place}`);
      // It takes a while until sound begins.
      playing = { from: now + 80, bpm: 100, tick: place };
    },
    stop: () => {
      done.push('stop');
      playing = null;
    },
    isPlaying: () => playing !== null,
    tickAt: (time) => tickAt(time),
    align: (time, tick) => playing && (playing = { ...playing, from: time, tick }),
  });
  const tickAt = (time: number) =>
    playing && playing.tick + ((time - playing.from) * 960 * playing.bpm) / 60_000;
  const run = (bpm: number, ms: number, jitter: () => number, name = 'Host', from = now) => {
    const period = 60_000 / 24 / bpm;
    let look = now;
    for (let n = 0; n * period < ms; n++) {
      now = from + n * period;
      while (look <= now) {
        look += LOOK_MS;
        following.look();
      }
      following.take(name, [0xf8], now + jitter());
    }
    now = from + ms;
  };
  return { following, told, seconds, done, run, tickAt, now: () => now, wait: (ms: number) => (now += ms) };
};

describe('following', () => {
  test('it starts with the host, is where the host is two seconds later, follows a new tempo, and stops with it', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 60, max: 200 }),
        fc.infiniteStream(fc.double({ min: -5, max: 5, noNaN: true })),
        (bpm, rolls) => {
          const one = follow();
          const jitter = () => rolls.next().value as number;
          one.following.take('Host', [0xfa], one.now());
          one.run(bpm, 3000, jitter);
          const host = (3000 * 960 * bpm) / 60_000;
          expect((Math.abs(one.tickAt(one.now())! - host) * 60_000) / 960 / bpm).toBeLessThan(3);
          one.following.take('Host', [0xfc], one.now());
          expect(one.done).toEqual(['start 0', 'stop']);
        },
      ),
      { seed: 19, numRuns: 30 },
    );
  });

  test('its place in the song, two leaders, a clock that stops coming', () => {
    const one = follow();
    one.following.take('Host', [0xf2, 16, 1], 0);
    one.following.take('Host', [0xfb], 0);
    one.run(120, 1500, () => 0);
    expect(one.done).toEqual([`start ${(16 + 128) * 240}`]);
    // It goes on from there, and does not fall back to the first bar.
    expect(one.tickAt(one.now())! / 960).toBeCloseTo((16 + 128) / 4 + 3, 1);
    one.following.take('Other', [0xf8], one.now());
    expect(one.seconds).toEqual(['Other Host']);
    one.wait(3000);
    one.following.look();
    expect(one.told.at(-1)).toBe('Host 120 false');
    expect(one.done).toHaveLength(1);
    one.following.take('Other', [0xf8], one.now());
    expect(one.following.leader()!.name).toBe('Other');
    one.following.end();
    expect(one.told.at(-1)).toBeNull();
    expect(one.following.take('Host', [0x90, 36, 100], one.now())).toBe(false);
  });
});

test('stopped, it goes on from where it was; told to go on while it does, it only goes on; a leap is followed', () => {
  const one = follow();
  one.following.take('Host', [0xfa], 0);
  one.run(120, 1500, () => 0);
  one.following.take('Host', [0xfb], one.now());
  expect(one.done).toEqual(['start 0']);
  one.following.take('Host', [0xfc], one.now());
  one.following.take('Host', [0xfc], one.now());
  one.following.take('Host', [0xfb], one.now());
  // 72 ticks of a clock are three quarters.
  expect(one.done).toEqual(['start 0', 'stop', `start ${3 * 960}`]);
  one.run(120, 1000, () => 0);
  expect(one.tickAt(one.now())! / 960).toBeCloseTo(5, 1);
  one.following.take('Host', [0xf2, 64, 0], one.now());
  one.run(120, 1000, () => 0);
  expect(one.done).toHaveLength(3);
  expect(one.tickAt(one.now())! / 960).toBeCloseTo(18, 1);
});

describe('patterns by notes', () => {
  const open = (held: boolean) => {
    const store = createStore();
    const beat = newBeat('b', 'Ferry', 7);
    const [first] = beat.patterns;
    const patterns = [
      first!,
      { ...first!, id: 'q', name: 'B', key: { code: 'KeyQ', at: 'now' as const, held } },
    ];
    store.dispatch(beatOpened({ beat: { ...beat, patterns } }));
    store.dispatch(viewChanged({ patternId: first!.id }));
    const keys = createPatternNotes(store, () => {
      const { playing } = store.getState().view;
      store.dispatch(viewChanged({ playing: !playing }));
    });
    const shown = () => [store.getState().view.patternId, store.getState().view.playing];
    return { keys, shown, first: first!.id };
  };

  test('held, a pattern plays as long as its key is down', () => {
    const { keys, shown, first } = open(true);
    keys.on(48, 49);
    expect(shown()).toEqual(['q', true]);
    keys.off(48, 50);
    expect(shown()).toEqual(['q', true]);
    keys.off(48, 49);
    expect(shown()).toEqual([first, false]);
    keys.on(48, 99);
    expect(shown()).toEqual([first, false]);
  });

  test('not held, it plays until it is pressed again', () => {
    const { keys, shown, first } = open(false);
    keys.on(48, 49);
    keys.off(48, 49);
    expect(shown()).toEqual(['q', true]);
    keys.on(48, 49);
    expect(shown()).toEqual([first, false]);
  });
});
