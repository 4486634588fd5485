import { INSTRUMENT_IDS, INSTRUMENTS } from '../document/instruments';
import { newLane } from '../document/defaults';
import type { Lane } from '../document/schema';
import { KITS, standIn } from '../synthesis/kits';
import { layerOf, levelOf, makeSound } from '../synthesis/layers';
import { createMixer, mix, replan, silence, type MixNote } from '../mix/mixer';
import { mixNotes } from '../mix/mixNotes';
import { drumPlan } from './voiceSound';
import { isPlainShape, shapeLayers, soundShapeOf } from './shape';

const RATE = 16000;
const kits = Object.values(KITS);

/** Zero crossings a second: a plain measure of how bright a sound is. */
const brightness = (data: Float32Array): number => {
  let count = 0;
  const length = Math.min(data.length, RATE * 0.05);
  for (let i = 1; i < length; i++) if (data[i]! * data[i - 1]! < 0) count++;
  return (count * RATE) / length;
};

describe('instruments', () => {
  test('cover General MIDI’s percussion, 35 to 81', () => {
    const notes = new Set(Object.values(INSTRUMENTS).map(({ note }) => note));
    for (let note = 35; note <= 81; note++) expect(notes).toContain(note);
  });

  test('each has a sound in each kit, its own or that of a relative', () => {
    for (const kit of kits)
      for (const id of INSTRUMENT_IDS) expect(kit.sounds[standIn(kit, id)]).toBeDefined();
    expect(standIn(KITS.quay, 'china')).toBe('crash');
    expect(standIn(KITS.lantern, 'snare')).toBe('snare');
  });
});

describe.each([KITS.quay, KITS.lantern])('the kit $id', (kit) => {
  const ids = Object.keys(kit.sounds) as (keyof typeof kit.sounds)[];
  const sounds = ids.map((id) => makeSound(kit, id, RATE));

  test('has at least twelve instruments, all of them audible and within full scale', () => {
    expect(ids.length).toBeGreaterThanOrEqual(12);
    for (const { layers } of sounds)
      for (const layer of layers) {
        const peak = layer.reduce((most, x) => Math.max(most, Math.abs(x)), 0);
        expect(peak).toBeGreaterThan(0.2);
        expect(peak).toBeLessThanOrEqual(1);
        expect(Math.abs(layer.at(-1)!)).toBeLessThan(0.001);
      }
  });

  test('sounds brighter when struck harder', () => {
    for (const id of ['kick', 'snare', 'hat.closed', 'tom.low'] as const) {
      const { layers } = sounds[ids.indexOf(id)]!;
      expect(brightness(layers.at(-1)!)).toBeGreaterThan(brightness(layers[0]!));
    }
  });

  test('is the same wherever it is made', () => {
    expect(makeSound(kit, 'snare', RATE).layers).toEqual(sounds[ids.indexOf('snare')]!.layers);
  });
});

describe('the mixer', () => {
  const ones = new Float32Array(4000).fill(0.5);
  const note = (frame: number, more: Partial<MixNote> = {}): MixNote => ({
    frame,
    sound: 0,
    layer: 0,
    left: 1,
    right: 1,
    group: 0,
    ...more,
  });
  const withSound = () => {
    const mixer = createMixer(RATE);
    mixer.sounds[0] = [ones];
    return mixer;
  };
  const render = (mixer: ReturnType<typeof withSound>, start: number, length: number) => {
    const left = new Float32Array(length);
    const started: number[] = [];
    mix(mixer, left, new Float32Array(length), start, (_, frame) => started.push(frame));
    return { left, started };
  };

  test('begins every note on its own frame, wherever the blocks fall', () => {
    const mixer = withSound();
    replan(mixer, 0, [note(5), note(130), note(200)]);
    const first = render(mixer, 0, 128);
    expect([first.left[4], first.left[5], first.started]).toEqual([0, 0.5, [5]]);
    expect(render(mixer, 128, 128).started).toEqual([130, 200]);
    expect(mixer.late).toEqual({ count: 0, worst: 0 });
  });

  test('plays a late note at once and counts it when it is late by over 1 ms', () => {
    const mixer = withSound();
    replan(mixer, 0, [note(100), note(120)]);
    expect(render(mixer, 130, 128).started).toEqual([130, 130]);
    expect(mixer.late).toEqual({ count: 1, worst: 30 });
  });

  test('a new plan takes the place of what waits from its frame on', () => {
    const mixer = withSound();
    replan(mixer, 0, [note(10), note(50), note(90)]);
    replan(mixer, 40, [note(60)]);
    expect(render(mixer, 0, 128).started).toEqual([10, 60]);
  });

  test('a list that comes late strikes nothing again that has begun by the one before, and still strikes what is new', () => {
    const mixer = withSound();
    const snare = (frame: number) => note(frame, { lane: 1 });
    replan(mixer, 0, [note(10), snare(60), note(300)]);
    expect(render(mixer, 0, 128).started).toEqual([10, 60]);
    // It was made at frame 20 and is heard at 128: by rounding one stroke stands a frame later.
    replan(mixer, 20, [snare(61), note(90), note(300)]);
    expect(render(mixer, 128, 256).started).toEqual([128, 300]);
    // The same stroke in the next pass is another one.
    replan(mixer, 384, [note(400)]);
    expect(render(mixer, 384, 128).started).toEqual([400]);
  });

  test('notes of a group silence one another within 3 ms, and others go on', () => {
    const mixer = withSound();
    replan(mixer, 0, [note(0, { group: 1 }), note(100, { group: 1, left: 0, right: 0 })]);
    const { left } = render(mixer, 0, 400);
    expect(left[99]).toBe(0.5);
    expect(left[100 + RATE * 0.005]).toBe(0);
    const apart = withSound();
    replan(apart, 0, [note(0, { group: 1 }), note(100, { group: 2, left: 0, right: 0 })]);
    expect(render(apart, 0, 400).left[399]).toBe(0.5);
  });

  test('falls silent at once, without a jump', () => {
    const mixer = withSound();
    replan(mixer, 0, [note(0), note(300)]);
    render(mixer, 0, 128);
    silence(mixer);
    const { left, started } = render(mixer, 128, 400);
    expect(started).toEqual([]);
    expect(left[200]).toBe(0);
    for (let i = 1; i < 200; i++) expect(Math.abs(left[i]! - left[i - 1]!)).toBeLessThan(0.02);
  });

  test('a sound read twice as fast is an octave higher and half as long; it may begin within', () => {
    const ramp = Float32Array.from({ length: 400 }, (_, at) => at / 1000);
    const played = (more: Partial<MixNote>, blocks: number[]) => {
      const mixer = createMixer(RATE);
      mixer.sounds[0] = [ramp];
      replan(mixer, 0, [note(0, more)]);
      let start = 0;
      return blocks.flatMap((length) => {
        const { left } = render(mixer, start, length);
        start += length;
        return [...left];
      });
    };
    const fast = played({ speed: 2 }, [256]);
    expect(fast.slice(0, 3).map((x) => Math.round(x * 1000))).toEqual([0, 2, 4]);
    expect(fast.findLastIndex((x) => x > 0)).toBe(199);
    // Begun in the middle it comes up within 3 ms, and is then where it would be.
    const within = played({ from: 100 }, [256]);
    expect(within[0]).toBeCloseTo(0, 3);
    expect(within[RATE * 0.003]).toBeCloseTo((100 + RATE * 0.003) / 1000);
    const slow = played({ speed: 0.5, from: 10 }, [1024]);
    expect(slow[RATE * 0.003 + 1]).toBeCloseTo((10 + (RATE * 0.003 + 1) / 2) / 1000);
    // However it falls into blocks, it sounds alike.
    const pieces = played({ speed: 1.37 }, [1, 63, 64, 128]);
    played({ speed: 1.37 }, [256]).forEach((x, at) => expect(pieces[at]).toBeCloseTo(x, 5));
  });

  test('stays within full scale however much sounds at once', () => {
    const mixer = withSound();
    replan(
      mixer,
      0,
      Array.from({ length: 60 }, () => note(0)),
    );
    const { left } = render(mixer, 0, 128);
    expect(Math.max(...left)).toBeLessThanOrEqual(1);
  });
});

const FOUR = { buffers: [0, 1, 2, 3].map(() => new Float32Array(1)), plan: drumPlan(4) };
const mixNote = (lane: Lane, velocity: number) =>
  mixNotes(lane, FOUR, 0, { velocity, frame: 0, turn: 0 }, 7)[0]!;

test('velocity sets layer and level, pan keeps the power', () => {
  expect([1, 40, 80, 127].map((velocity) => layerOf(velocity))).toEqual([0, 1, 2, 3]);
  expect(levelOf(127)).toBe(1);
  expect(levelOf(64)).toBeCloseTo(0.33, 2);
  const lane = newLane('hat', 'hat.closed');
  for (const pan of [-1, -0.5, 0, 1]) {
    const { left, right, group } = mixNote({ ...lane, pan }, 127);
    expect(left ** 2 + right ** 2).toBeCloseTo(1);
    expect(group).toBe(mixNote(newLane('o', 'hat.open'), 1).group);
  }
});

describe('what a lane makes of its sound', () => {
  const plain = makeSound(KITS.quay, 'snare', RATE).layers;
  const shape = { tune: 0, decay: 1, lowPass: 20000, highPass: 20 };
  const energy = (data: Float32Array, from = 0) =>
    data.slice(from).reduce((sum, x) => sum + x * x, 0) / Math.max(1, data.length - from);

  test('left open it is the sound of the kit', () => {
    expect(isPlainShape(soundShapeOf(newLane('a', 'snare')))).toBe(true);
    expect(isPlainShape(soundShapeOf({ ...newLane('a', 'snare'), tune: 1 }))).toBe(false);
    expect(shapeLayers(plain, shape, RATE)).toEqual(plain);
  });

  test('an octave up is half as long and brighter, an octave down twice as long and darker', () => {
    const [up] = shapeLayers(plain, { ...shape, tune: 12 }, RATE);
    const [down] = shapeLayers(plain, { ...shape, tune: -12 }, RATE);
    expect(up!.length / plain[0]!.length).toBeCloseTo(0.5, 2);
    expect(down!.length / plain[0]!.length).toBeCloseTo(2, 2);
    expect(brightness(up!)).toBeGreaterThan(brightness(plain[0]!));
    expect(brightness(down!)).toBeLessThan(brightness(plain[0]!));
  });

  test('decay takes the end away and leaves the stroke', () => {
    const [short] = shapeLayers(plain, { ...shape, decay: 0.2 }, RATE);
    const late = Math.round(plain[0]!.length / 2);
    expect(energy(short!, late)).toBeLessThan(energy(plain[0]!, late) / 10);
    expect(Math.abs(short![20]!)).toBeCloseTo(Math.abs(plain[0]![20]!), 1);
  });

  test('a low-pass darkens, a high-pass thins', () => {
    const [dark] = shapeLayers(plain, { ...shape, lowPass: 400 }, RATE);
    const [thin] = shapeLayers(plain, { ...shape, highPass: 3000 }, RATE);
    expect(brightness(dark!)).toBeLessThan(brightness(plain[0]!) / 2);
    expect(brightness(thin!)).toBeGreaterThan(brightness(plain[0]!));
  });
});

describe('the mixer, note by note', () => {
  const ready = () => {
    const mixer = createMixer(RATE);
    mixer.sounds[0] = [new Float32Array(RATE).fill(0.5)];
    return mixer;
  };
  const note = (more: Partial<MixNote> = {}): MixNote => ({
    frame: 0,
    sound: 0,
    layer: 0,
    left: 1,
    right: 0.5,
    group: 0,
    ...more,
  });

  test('a note with a length is faded out at its end, one without rings', () => {
    const sounding = (frames: number) => {
      const mixer = ready();
      replan(mixer, 0, [note({ frames })]);
      const left = new Float32Array(4000);
      mix(mixer, left, new Float32Array(4000), 0);
      return left.findLastIndex((x) => x !== 0);
    };
    expect(sounding(1000)).toBeGreaterThan(1000);
    expect(sounding(1000)).toBeLessThan(1000 + 0.005 * RATE);
    expect(sounding(0)).toBe(3999);
  });

  test('the peak of each lane is kept until it is taken', () => {
    const mixer = ready();
    replan(mixer, 0, [note({ lane: 3 })]);
    mix(mixer, new Float32Array(100), new Float32Array(100), 0);
    expect(mixer.peaks[3]).toBeCloseTo(0.5);
    expect(mixer.peaks[0]).toBe(0);
  });

  test('a lane’s own choke group takes the place of its instrument’s', () => {
    const lane = newLane('a', 'hat.open');
    const own = (choke: number) => mixNote({ ...lane, choke }, 90).group;
    expect(mixNote(lane, 90).group).toBe(mixNote(newLane('b', 'hat.closed'), 90).group);
    expect(own(0)).toBe(0);
    expect(own(2)).not.toBe(own(3));
    expect(mixNote({ ...newLane('k', 'kick'), choke: 2 }, 90).group).toBe(own(2));
  });
});
