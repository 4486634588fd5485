import fc from 'fast-check';
import { newBeat } from '../document/defaults';
import type { Loop } from '../document/schema';
import { addLoop, loopToDrums, setLoop } from '../edit/sounds';
import { allNotes } from '../play/driver';
import { planPasses } from '../play/timelinePlan';
import { fitting, kitFor } from './fitting';
import { KITS } from '../synthesis/kits';
import { makeSound } from '../synthesis/layers';
import { loopTempos, tempoInName } from './loopTempo';
import { loopTemplate } from './loopTemplate';
import { evenMarks, marksAt, movedMark, withMark, withoutMark } from './loops';
import { onsetsOf } from './onsets';
import { spreadOver, voiceOfSamples, voicesGiven } from './newVoice';
import { renderShipped } from '../mix/shippedLoops';
import { SHIPPED_LIST } from './shippedList';
import { sampleSecondsOf, type Audio } from './sample';
import { sliceKinds } from './sliceKinds';

const RATE = 22050;

/** Drums at known times. */
const drummed = (
  hits: [at: number, drum: 'kick' | 'snare' | 'hat.closed', level?: number][],
  seconds: number,
): Audio => {
  const out = new Float32Array(Math.round(seconds * RATE));
  for (const [at, drum, level = 1] of hits) {
    const data = makeSound(KITS.quay, drum, RATE).layers.at(-1)!;
    const from = Math.round(at * RATE);
    for (let i = 0; i < data.length && from + i < out.length; i++) out[from + i]! += level * data[i]!;
  }
  return { rate: RATE, channels: [out] };
};

const BAR: [number, 'kick' | 'snare' | 'hat.closed', number?][] = [0, 1, 2, 3].flatMap((beat) => [
  [beat * 0.5, beat % 2 ? 'snare' : 'kick'] as [number, 'kick' | 'snare'],
  [beat * 0.5 + 0.25, 'hat.closed', 0.8] as [number, 'hat.closed', number],
]);

test('hits are found where they were struck, softer ones with more sensitivity, and in silence none', () => {
  const loop = drummed(BAR, 2);
  const found = onsetsOf(loop);
  expect(found).toHaveLength(8);
  found.forEach(({ at }, which) => expect(Math.abs(at - which * 0.25)).toBeLessThan(0.003));
  const soft = drummed([...BAR, [0.375, 'hat.closed', 0.06]], 2);
  const counts = [0, 50, 100].map((sensitivity) => onsetsOf(soft, sensitivity).length);
  expect(counts[0]!).toBeLessThanOrEqual(counts[1]!);
  expect(counts[1]!).toBeLessThan(counts[2]!);
  expect(onsetsOf({ rate: RATE, channels: [new Float32Array(RATE)] })).toEqual([]);
});

test('from its length and its hits a loop tells its tempo; slices tell what they are', () => {
  const loop = drummed(BAR, 2);
  const [first] = loopTempos(onsetsOf(loop), 2);
  expect(first).toMatchObject({ bars: 1, bpm: 120 });
  expect(loopTempos(onsetsOf(loop), 2).reduce((sum, { likely }) => sum + likely, 0)).toBeCloseTo(1);
  const kinds = sliceKinds(loop, { marks: evenMarks(2, 8), end: 2 }).map(({ instrument }) => instrument);
  expect(kinds).toEqual([
    'kick',
    'hat.closed',
    'snare',
    'hat.closed',
    'kick',
    'hat.closed',
    'snare',
    'hat.closed',
  ]);
});

test('the tempo in the name of a file tells it, and the tempo of the beat between two that are as likely', () => {
  const loop = drummed(BAR, 2.667);
  const found = onsetsOf(loop);
  expect(loopTempos(found, 8 / 3, 4, { file: 'quay_90bpm.wav' })[0]!.bpm).toBeCloseTo(90, 0);
  expect(loopTempos(found, 8 / 3, 4, { file: 'BPM 180 quay.wav' })[0]!.bpm).toBeCloseTo(180, 0);
  const [first, second] = loopTempos(found, 8 / 3, 4);
  expect(
    loopTempos(found, 8 / 3, 4, { beat: second!.bpm }).find(({ bpm }) => bpm === second!.bpm)!.likely,
  ).toBeGreaterThan(second!.likely);
  expect(first!.likely).toBeGreaterThan(second!.likely);
  expect(['ferry 3.wav', '12bpm', '999 bpm'].map(tempoInName)).toEqual([null, null, null]);
});

test('a slice is told without what rings from before, and two drums struck at once are two', () => {
  // A kick that rings through the next three strokes, a hat with each of them.
  const ringing = drummed([], 2);
  const data = ringing.channels[0]!;
  for (let i = 0; i < data.length; i++)
    data[i] = 0.8 * Math.exp(-i / RATE / 0.5) * Math.sin((2 * Math.PI * 55 * i) / RATE);
  const over = drummed(
    [
      [0, 'hat.closed'],
      [0.5, 'hat.closed'],
      [1, 'snare'],
      [1.5, 'hat.closed'],
    ],
    2,
  );
  over.channels[0]!.forEach((value, i) => (data[i]! += 0.6 * value));
  const told = sliceKinds(ringing, { marks: [0, 0.5, 1, 1.5], end: 2 });
  expect(told.map(({ instrument, also = [] }) => [instrument, ...also.map((one) => one.instrument)])).toEqual(
    [['kick', 'hat.closed'], ['hat.closed'], expect.arrayContaining(['snare']), ['hat.closed']],
  );
});

test('loops that ship last exactly their bars, and have hits', async () => {
  for (const loop of SHIPPED_LIST.slice(0, 2)) {
    const audio = await renderShipped(loop, RATE);
    const quarters = (sampleSecondsOf(audio) * loop.tempo) / 60;
    expect(Math.abs(quarters - Math.round(quarters))).toBeLessThan(0.001);
    expect(onsetsOf(audio).length).toBeGreaterThan(3);
  }
});

test('marks stay in order and apart, whatever is done to them', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(2), fc.double({ min: -1, max: 3, noNaN: true }), fc.nat(80)), {
        maxLength: 90,
      }),
      (acts) => {
        let marks = marksAt([{ at: 0.5, strength: 1 }], 2);
        for (const [what, at, place] of acts) {
          if (what === 0) marks = withMark(marks, at, 2);
          else if (what === 1) marks = movedMark(marks, place % marks.length, at, 2);
          else marks = withoutMark(marks, place % marks.length);
        }
        expect(marks.length).toBeGreaterThan(0);
        expect(marks.length).toBeLessThanOrEqual(64);
        marks.forEach((mark, at) => expect(mark).toBeGreaterThanOrEqual(at ? marks[at - 1]! + 0.0049 : 0));
        expect(marks.at(-1)!).toBeLessThan(2);
      },
    ),
  );
  const many = Array.from({ length: 100 }, (_, at) => ({ at: at * 0.1, strength: at / 100 }));
  expect(marksAt(many, 10)).toHaveLength(64);
});

const loopOf = (marks: number[], bars = 1, end = 2): Loop => ({
  sample: { id: 'a'.repeat(64), file: 'ferry.wav', seconds: end },
  marks,
  end,
  bars,
  tempo: (bars * 240) / end,
});

test('a lane plays the slices where they were recorded, at any tempo, whatever the beat swings', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.integer({ min: 1, max: 199 }), { minLength: 1, maxLength: 30 }),
      fc.integer({ min: 60, max: 200 }),
      fc.constantFrom(1, 2, 4),
      (cuts, tempo, bars) => {
        const loop = loopOf([0, ...cuts.sort((a, b) => a - b).map((cut) => cut / 100)], bars);
        const swung = newBeat('b', 'B', 1);
        const beat = {
          ...swung,
          tempo,
          feel: { ...swung.feel, swing: { percent: 62, grid: '1/16' as const }, base: 'swing' as const },
        };
        const made = addLoop(beat, { id: 'l', name: 'Ferry', loop, patternId: 'a' });
        const plan = planPasses(made, made.patterns[0]!, bars);
        const at = made.lanes.length - 1;
        const played = allNotes(plan, 'wrap').filter(({ lane }) => lane === at);
        expect(played.map(({ note }) => note)).toEqual(loop.marks.map((_, slice) => 36 + slice));
        played.forEach(({ tick }, slice) =>
          expect(tick).toBeCloseTo((loop.marks[slice]! / loop.end) * bars * 3840, 5),
        );
      },
    ),
  );
});

test('a loop too long for a lane adds nothing, nor is one set where none is', () => {
  const beat = newBeat('b', 'B', 1);
  expect(addLoop(beat, { id: 'l', name: 'F', loop: loopOf([0], 40, 80), patternId: 'a' })).toBe(beat);
  expect(setLoop(beat, 'kick', loopOf([0]))).toBe(beat);
});

/** Where a lane plays which slices: ticks and slice. */
const slicesAt = (beat: ReturnType<typeof newBeat>) =>
  beat.patterns[0]!.parts['l']!.hits.map(({ step, nudge, pitch = 0 }) => [
    Math.round((step + nudge) * 240),
    pitch,
  ]);

test('hits keep the piece of sound that they play when a loop is cut otherwise', () => {
  const made = addLoop(newBeat('b', 'B', 1), { id: 'l', name: 'F', loop: loopOf([0, 1]), patternId: 'a' });
  expect(slicesAt(made)).toEqual([
    [0, 0],
    [1920, 1],
  ]);
  const divided = setLoop(made, 'l', loopOf([0, 0.5, 1]));
  expect(slicesAt(divided)).toEqual([
    [0, 0],
    [960, 1],
    [1920, 2],
  ]);
  // A mark taken out joins its slice to the one before; right after that it is heard in it.
  expect(slicesAt(setLoop(divided, 'l', loopOf([0, 1])))).toEqual(slicesAt(made));
  // A mark moved keeps the hit on its own slice.
  expect(slicesAt(setLoop(divided, 'l', loopOf([0, 0.6, 1])))).toEqual(slicesAt(divided));
  // Out of its order a slice that is joined is heard in what it is now a part of.
  const turned = {
    ...divided,
    patterns: [
      {
        ...divided.patterns[0]!,
        parts: {
          ...divided.patterns[0]!.parts,
          l: {
            ...divided.patterns[0]!.parts['l']!,
            hits: divided.patterns[0]!.parts['l']!.hits.filter(({ pitch }) => pitch === 1),
          },
        },
      },
    ],
  };
  expect(slicesAt(setLoop(turned, 'l', loopOf([0, 1])))).toEqual([[960, 0]]);
});

test('what sounds backwards goes on doing so, in each piece that it is cut into', () => {
  const made = addLoop(newBeat('b', 'B', 1), {
    id: 'l',
    name: 'F',
    loop: { ...loopOf([0, 1]), reversed: [1] },
    patternId: 'a',
  });
  const lane = (beat: typeof made) => beat.lanes.find(({ id }) => id === 'l')!.loop!;
  expect(lane(setLoop(made, 'l', loopOf([0, 0.5, 1, 1.5]))).reversed).toEqual([2, 3]);
  expect(lane(setLoop(made, 'l', { ...loopOf([0, 0.5, 1]), reversed: [] })).reversed).toBeUndefined();
});

test('a loop spread over the drums of a shorter pattern makes it as long, and every slice has its hit', () => {
  const told = [0, 1, 2, 3].map(() => ({ instrument: 'kick' as const, velocity: 100 }));
  const beat = newBeat('b', 'B', 1);
  const made = loopToDrums(beat, { loop: loopOf([0, 1, 2, 3], 2, 4), told, patternId: 'a', ids: {} });
  expect(made.patterns[0]!.bars).toBe(2);
  expect(made.patterns[0]!.parts['kick']!.hits.map(({ step }) => step)).toEqual([0, 8, 16, 24]);
});

test('slices are spread over the kit’s drums where they are, beside what is there; lanes that lack are added', () => {
  const beat = newBeat('b', 'B', 1);
  const told = [
    { instrument: 'kick' as const, velocity: 120 },
    null,
    { instrument: 'cowbell' as const, velocity: 60 },
  ];
  const made = loopToDrums(beat, {
    loop: loopOf([0, 0.5, 1.26]),
    told,
    patternId: 'a',
    ids: { cowbell: 'new' },
  });
  expect(made.lanes.at(-1)).toMatchObject({ id: 'new', instrument: 'cowbell' });
  expect(made.patterns[0]!.parts['kick']!.hits).toMatchObject([{ step: 0, velocity: 120 }]);
  const [hit] = made.patterns[0]!.parts['new']!.hits;
  expect((hit!.step + hit!.nudge) * 240).toBeCloseTo((1.26 / 2) * 3840, 6);
});

test('its timing is a template: what swings in the audio swings in it, what was loud is an accent', () => {
  const marks = Array.from({ length: 16 }, (_, at) => (at + (at % 2 ? 0.2 : 0)) * 0.125);
  const shape = loopTemplate(
    'Ferry',
    loopOf(marks),
    marks.map((_, at) => (at % 4 ? 0.4 : 1)),
    { beats: 4, unit: 4 },
  )!;
  expect(shape.grid).toBe('1/16');
  expect(shape.slots[1]!.offset).toBeCloseTo(0.2, 3);
  expect(shape.slots[4]!.velocity).toBeGreaterThan(shape.slots[5]!.velocity);
});

test('files go to the drums that they name; beyond twelve of one they are told as left out, as those without a drum are', () => {
  const files = Array.from({ length: 15 }, (_, at) => ({
    sample: { id: String(at), file: `kick ${at}.wav`, seconds: 1 },
    drum: at === 3 ? null : ('kick' as const),
  }));
  const { voices, left } = voicesGiven({ snare: voiceOfSamples([files[0]!.sample]) }, files);
  expect(Object.keys(voices)).toEqual(['snare', 'kick']);
  expect(voices.kick!.layers).toHaveLength(12);
  expect(left).toEqual([3, 13, 14]);
});

test('a drum that is as short and bright as the others are, against their kind, fits first', () => {
  const figures = (kit: string, ring: number, centroid: number) =>
    (['kick', 'snare', 'clap'] as const).map((instrument) => ({
      kit,
      instrument,
      ring,
      centroid,
      level: -12,
    }));
  const all = [...figures('dull', 1, 500), ...figures('usual', 0.5, 1000), ...figures('bright', 0.25, 2000)];
  const beside = (kit: string) => all.filter((one) => one.kit === kit && one.instrument !== 'kick');
  for (const kit of ['dull', 'usual', 'bright']) expect(fitting(all, 'kick', beside(kit))[0]!.kit).toBe(kit);
  expect(kitFor({ style: 'Jazz waltz', tempo: 140, instruments: [] })!.kit).toBe('drizzle');
  expect(kitFor({ tempo: 100, instruments: ['conga.open', 'shaker', 'kick'] })!.kit).toBe('handcart');
  expect(kitFor({ tempo: 100, instruments: ['kick', 'snare'] })).toBeNull();
});

test('layers that are spread over the velocities leave none out and share none', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 12 }), (count) => {
      const sample = { id: 'a'.repeat(64), file: 'a.wav', seconds: 1 };
      const layers = spreadOver(voiceOfSamples(Array.from({ length: count }, () => sample)).layers);
      for (let velocity = 1; velocity <= 127; velocity++)
        expect(layers.filter(({ low, high }) => velocity >= low && velocity <= high)).toHaveLength(1);
    }),
  );
});
