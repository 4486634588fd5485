import { looked } from '../store/looked.mock';
import fc from 'fast-check';
import { newBeat } from '../../core/document/defaults';
import { beatOpened } from '../store/doc';
import { createStore } from '../store/store';
import { createPatternNotes } from './patternNotes';
import type { MidiBytes } from '../../core/ports/midiStream';
import { createFollowing, FOLLOW_LOOK_MS } from './following';
import { createSending } from './sending';
import { firstSetting, NO_SETTING, readPortSettings, type PortSetting } from './settings';
import { setUp } from './setUp.mock';

describe('ports', () => {
  test('odd words on the channel are passed over and counted, by the app and by stand-ins', () => {
    const { hub, device, taken, shout } = setUp();
    const heard: { bytes: MidiBytes; time: number }[] = [];
    const one = device('a', 'Module', heard);
    const odd = [
      null,
      7,
      'who',
      [],
      {},
      { type: 'here' },
      { type: 'here', id: 'x', name: '', device: 'module' },
      { type: 'here', id: 'x', name: 'x'.repeat(500), device: 'module' },
      { type: 'here', id: 'x', name: 'X', device: 'constructor' },
      { type: '__proto__', id: 'a' },
      { type: 'toString' },
      { type: 'midi', id: 'a', to: 'app', bytes: 'abc', time: 1 },
      { type: 'midi', id: 'a', to: 'device', bytes: [144, 36, 300], time: 1 },
      { type: 'midi', id: 'a', to: 'app', bytes: [144, 0.5, 3], time: 1 },
      { type: 'midi', id: 'a', to: 'app', bytes: [144, 36, 100] },
      { type: 'midi', id: 'a', to: 'app', bytes: Array.from({ length: 70_000 }, () => 0), time: 1 },
      { type: 'gone', id: 7 },
      { type: 'clear' },
    ];
    for (const word of odd) shout(word);
    expect(hub.passedOver()).toBe(odd.length);
    expect([taken, heard]).toEqual([[], []]);
    expect(hub.ports().map(({ name }) => name)).toEqual(['Module']);
    // Those that make sense go on, under whatever name.
    shout({ type: 'here', id: '__proto__', name: '__proto__', device: 'module' });
    one.send([0x99, 36, 100], 2000);
    expect(taken).toHaveLength(1);
    hub.set('__proto__', { input: 'patterns' });
    expect(hub.ports().map(({ name, setting }) => [name, setting.input])).toContainEqual([
      '__proto__',
      'patterns',
    ]);
    for (let at = 0; at < 500; at++) shout({ type: 'here', id: `${at}`, name: 'Flood', device: 'grid' });
    expect(hub.ports().filter(({ there }) => there).length).toBe(64);
  });

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
    const learnt: object[] = [];
    const end = hub.learn('Pads', (heard) => void learnt.push(heard));
    one.send([0x91, 61, 90], 2000);
    one.send([0x80, 61, 0], 2001);
    end();
    one.send([0x90, 62, 90], 2002);
    expect(learnt).toEqual([{ channel: 2, note: 61 }]);
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
        look += FOLLOW_LOOK_MS;
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
    store.dispatch(looked({ patternId: first!.id }));
    const keys = createPatternNotes(store, () => {
      const { playing } = store.getState().transport;
      store.dispatch(looked({ playing: !playing }));
    });
    const shown = () => [store.getState().focus.patternId, store.getState().transport.playing];
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
