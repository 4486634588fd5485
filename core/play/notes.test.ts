import { kickBeat } from './section.mock';
import { patternTicks, soundingLanes } from '../document/defaults';
import { allNotes } from './driver';
import type { LoopEdges } from './edges';
import { planLane } from './plan';
import { planPasses } from './timelinePlan';
import { notesIn } from './driver';
import { planLive } from './timelinePlan';
import fc from 'fast-check';
import { beats } from '../arbitraries';
import { newHit } from '../document/defaults';
import { newFeel } from '../document/feelDefaults';
import type { Beat, Hit, LanePattern } from '../document/schema';
import { drawnStrokes, type Note } from './notes';

const beatWith = (hits: Hit[], part: Partial<LanePattern> = {}, change: Partial<Beat> = {}): Beat =>
  kickBeat(hits, { seed: 7, tempo: 120, ...change }, part);
const plan = (beat: Beat) => planLive(beat, beat.patterns[0]!);
const loopOf = (beat: Beat, passes: number, edges: LoopEdges = 'wrap') =>
  allNotes(planPasses(beat, beat.patterns[0]!, passes), edges);
const ticks = (notes: Note[]) => notes.map((note) => note.tick);
const swing60 = { feel: newFeel({ percent: 60, grid: '1/16' }) };

describe('play', () => {
  test('a note is ended by the next one of its lane, though that begins beyond what is asked for', () => {
    const beat = beatWith([newHit(0), { ...newHit(12), length: 9 }]);
    const [, last] = notesIn(plan(beat), 0, 3840);
    expect([last!.tick, last!.length]).toEqual([2880, 960]);
    const [alone] = notesIn(plan(beat), 2880, 2881);
    expect(alone!.length).toBe(960);
  });

  test('a window of any size equals the same part of the whole, chance, rolls and every direction included', () => {
    fc.assert(
      fc.property(
        beats,
        fc.array(fc.integer({ min: 1, max: 4000 }), { minLength: 1, maxLength: 12 }),
        (beat, cuts) => {
          const one = plan(beat);
          const total = cuts.reduce((sum, cut) => sum + cut, 0);
          let from = 0;
          const pieces = cuts.flatMap((cut) => {
            const notes = notesIn(one, from, from + cut);
            from += cut;
            return notes;
          });
          expect(pieces).toEqual(notesIn(one, 0, total));
        },
      ),
      { numRuns: 120 },
    );
  });

  test('notes are in order, keep to a lane without overlap, and have a velocity from 1 to 127', () => {
    fc.assert(
      fc.property(beats, (beat) => {
        const notes = notesIn(plan(beat), 0, 4000);
        const last = new Map<number, Note>();
        for (const note of notes) {
          const before = last.get(note.lane);
          if (before && !before.moved && !note.moved && before.tick + before.length > note.tick + 1e-6)
            throw new Error(`lane ${note.lane} overlaps at ${note.tick}`);
          last.set(note.lane, note);
        }
        expect(notes.filter(({ velocity }) => !(velocity >= 1 && velocity <= 127))).toEqual([]);
        expect(ticks(notes)).toEqual([...ticks(notes)].sort((a, b) => a - b));
      }),
    );
  });

  test('a flam of 25 ms on the swung off-step keeps its distance', () => {
    const beat = beatWith([{ ...newHit(1), grace: [{ before: 25, level: 0.5 }] }], {}, swing60);
    const notes = notesIn(plan(beat), 0, 3840);
    expect(notes.map(({ tick, velocity }) => [tick, velocity])).toEqual([
      [240, 48],
      [288, 96],
    ]);
  });

  test('a triplet lane stays straight under a swing', () => {
    const beat = beatWith([newHit(0), newHit(1), newHit(2)], { grid: '1/8T' }, swing60);
    expect(ticks(notesIn(plan(beat), 0, 3840))).toEqual([0, 320, 640]);
  });

  test.each([
    ['forward', [0, 240, 720]],
    ['backward', [0, 480, 720]],
    ['thereAndBack', [0, 240, 720, 1200]],
  ] as const)('reads a lane of four steps %s', (direction, expected) => {
    const beat = beatWith([newHit(0), newHit(1), newHit(3)], { steps: 4, direction });
    const round = direction === 'thereAndBack' ? 1440 : 960;
    expect(ticks(notesIn(plan(beat), 0, round))).toEqual(expected);
  });

  test('a nudge runs forward in time even where the lane is read backward, and the first pass holds early notes', () => {
    const beat = beatWith([{ ...newHit(3), nudge: -0.25 }], { steps: 4, direction: 'backward' });
    const notes = notesIn(plan(beat), 0, 1920);
    expect(ticks(notes)).toEqual([0, 900, 1860]);
    expect(notes[0]!.moved).toBe(true);
  });

  test('a lane of three steps runs on across the bar line, at twice the rate too', () => {
    expect(ticks(notesIn(plan(beatWith([newHit(0)], { steps: 3 })), 3000, 5000))).toEqual([3600, 4320]);
    expect(ticks(notesIn(plan(beatWith([newHit(0)], { steps: 3, rate: '2' })), 0, 1000))).toEqual([
      0, 360, 720,
    ]);
  });

  test('a roll divides its span, with a level for each stroke, and ends at the next hit', () => {
    const roll = { curve: 0, levels: [0.25, 0.5, 1] };
    const beat = beatWith([{ ...newHit(0, 100), length: 4, roll }, newHit(3)]);
    const notes = notesIn(plan(beat), 0, 3840);
    expect(notes.map(({ tick, velocity }) => [tick, velocity])).toEqual([
      [0, 25],
      [240, 50],
      [480, 100],
      [720, 96],
    ]);
  });

  test('strokes of one lane that the feel brings less than 1 ms apart become one, the louder; as recorded they stay', () => {
    const near = [newHit(0, 50), { ...newHit(0, 90), nudge: 0.2 }];
    const quantized = newFeel();
    quantized.quantize = { ...quantized.quantize, grid: '1/16', strength: 1, window: 1, flams: false };
    const velocities = (beat: Beat) => notesIn(plan(beat), 0, 960).map(({ velocity }) => velocity);
    expect(velocities(beatWith(near))).toEqual([50, 90]);
    expect(velocities(beatWith(near, {}, { feel: quantized }))).toEqual([90]);
    expect(velocities(beatWith([newHit(0, 50), { ...newHit(0, 90), nudge: 0.005 }]))).toEqual([50, 90]);
    expect(velocities(beatWith([newHit(0, 50), newHit(0, 90)]))).toEqual([90]);
  });

  test('a loop carries early notes to its end, or holds them, and cuts what sounds past it', () => {
    const beat = beatWith([
      { ...newHit(0), nudge: -0.25 },
      { ...newHit(15), length: 8 },
    ]);
    expect(ticks(loopOf(beat, 1))).toEqual([3600, 3780]);
    expect(ticks(loopOf(beat, 1, 'hold'))).toEqual([0, 3600]);
    const ends = loopOf(beat, 2).map((note) => note.tick + note.length);
    expect(Math.max(...ends)).toBe(7680);
  });

  test('a loop of n passes is what is heard in n passes, save what the loop carries over its edge', () => {
    fc.assert(
      fc.property(beats, fc.integer({ min: 1, max: 3 }), (beat, passes) => {
        const one = plan(beat);
        const key = (note: Note) =>
          `${note.lane} ${note.cycle} ${note.readIndex} ${note.hitIndex} ${note.stroke}`;
        const total = patternTicks(beat.patterns[0]!) * passes;
        const loop = loopOf(beat, passes).filter((note) => !note.moved);
        const heard = new Map(notesIn(one, 0, total).map((note) => [key(note), note]));
        for (const note of loop) {
          // Close to the end, what comes early from the next pass may merge with a note in live play.
          if (note.tick > total - one.reach(total) - 10) continue;
          const same = heard.get(key(note));
          expect([same?.tick, same?.velocity]).toEqual([note.tick, note.velocity]);
        }
      }),
    );
  });

  test('chance leaves hits out by its share, the same ones each time it is asked', () => {
    const beat = beatWith([{ ...newHit(0), chance: 0.3 }], { steps: 1 });
    const heard = notesIn(plan(beat), 0, 240 * 4096);
    expect(heard.length / 4096).toBeCloseTo(0.3, 1);
    expect(notesIn(plan(beat), 0, 240 * 4096)).toEqual(heard);
  });

  test('muted lanes are silent, a solo silences the rest, and both can be played all the same', () => {
    const beat = beatWith([newHit(0)]);
    const muted = { ...beat, lanes: beat.lanes.map((lane) => ({ ...lane, mute: lane.id === 'kick' })) };
    const other = { ...beat, lanes: beat.lanes.map((lane) => ({ ...lane, solo: lane.id === 'snare' })) };
    for (const one of [muted, other]) {
      expect(notesIn(plan(one), 0, 960)).toEqual([]);
      expect(notesIn(planLive(one, one.patterns[0]!, { includeMuted: true }), 0, 960)).toHaveLength(1);
    }
  });

  test('what is drawn stands where it sounds', () => {
    fc.assert(
      fc.property(beats, (beat) => {
        const [pattern] = beat.patterns;
        const lanes = soundingLanes(beat).map((lane) => planLane(beat, pattern!, lane));
        const drawn = new Set(
          lanes.flatMap((lane) =>
            drawnStrokes(lane, patternTicks(pattern!)).map(
              ({ tick, velocity }) => `${lane.index} ${tick} ${velocity}`,
            ),
          ),
        );
        const heard = loopOf(beat, 1).filter((note) => !note.moved);
        expect(heard.filter((note) => !drawn.has(`${note.lane} ${note.tick} ${note.velocity}`))).toEqual([]);
      }),
    );
  });
});
