import { patternTicks } from '../../core/document/defaults';
import type { Beat, Pattern } from '../../core/document/schema';
import { sparksTo } from '../../core/play/moves/sparks';
import { bendOf, drawnStrokes, type Drawn } from '../../core/play/notes';
import { planLane } from '../../core/play/plan';
import type { Semitones, Ticks, Velocity } from '../../core/units';
import { magnified } from './drawing';

/** One end of a thread: a bead on a string. */
export interface ThreadEnd {
  laneId: string;
  x: Ticks;
  velocity: Velocity;
  pitch: Semitones;
}

/** Where a stroke of one lane sets off another. */
export interface Thread {
  from: ThreadEnd;
  to: ThreadEnd;
}

/** As the core tells what is set off from all other strokes of its lane. */
const HITS = 4096;
const STROKES = 200;

const keyOf = (stroke: Drawn, hitIndex: number, number: number): string =>
  `${stroke.gridTick.toFixed(3)} ${stroke.step} ${hitIndex} ${number}`;

/** Whether any lane of a pattern sets off another. */
export const hasThreads = (pattern: Pattern): boolean =>
  Object.values(pattern.parts).some(({ sparks }) => sparks?.length);

/**
 * The threads of a pattern's first pass: from each stroke that sets something off to what it sets off.
 *
 * @param glass how many times as wide partings from the base feel are drawn
 */
export const threadsOf = (beat: Beat, pattern: Pattern, glass: number): Thread[] => {
  const length = patternTicks(pattern);
  const strokesOf = (laneId: string) => {
    const plan = planLane(
      beat,
      pattern,
      beat.lanes.find(({ id }) => id === laneId)!,
    );
    return { plan, strokes: drawnStrokes(plan, length), bend: bendOf(plan) };
  };
  const sources = new Map<string, Map<string, ThreadEnd>>();
  const ends = (laneId: string): Map<string, ThreadEnd> => {
    const there = sources.get(laneId);
    if (there) return there;
    const { plan, strokes, bend } = strokesOf(laneId);
    const made = new Map(
      strokes.map((stroke) => {
        const added = stroke.kind === 'echo';
        const rule = added ? stroke.tick : bend(stroke.gridTick);
        const x = added ? stroke.tick : magnified(stroke, rule, plan.step, glass);
        const { velocity, pitch } = stroke;
        return [keyOf(stroke, stroke.hitIndex, stroke.stroke), { laneId, x, velocity, pitch }];
      }),
    );
    sources.set(laneId, made);
    return made;
  };
  return beat.lanes.flatMap(({ id }) => {
    const sparks = sparksTo(beat, pattern, id);
    if (!sparks.length) return [];
    return strokesOf(id).strokes.flatMap((stroke): Thread[] => {
      if (stroke.kind !== 'spark') return [];
      const source = sparks[Math.floor(stroke.hitIndex / HITS) - 1];
      const from =
        source && ends(source.from).get(keyOf(stroke, stroke.hitIndex % HITS, stroke.stroke - STROKES));
      const { tick: x, velocity, pitch } = stroke;
      return from ? [{ from, to: { laneId: id, x, velocity, pitch } }] : [];
    });
  });
};
