import { patternTicks, soundingLanes } from '../../core/document/defaults';
import { instrument, type Material } from '../../core/document/instruments';
import { barTicks, beatTicks } from '../../core/document/meter';
import { selectBeat, selectPattern, type RootState } from '../store/store';
import { laneDrawing } from './drawings';
import { INSET, LANE_HEIGHT, namesWidth } from './geometry';

/** A step as it is shown before the app is there: its number, from and to in ticks, its velocity, where its bead stands. */
export type EarlyStep = [step: number, left: number, right: number, velocity: number, x: number];

export interface EarlyLane {
  id: string;
  name: string;
  /** The name of its dye. */
  dye: string;
  material: Material;
  silent: boolean;
  steps: EarlyStep[];
}

/** The first page of the strings, as little of it as can be shown and tapped before the app is there. */
export interface Early {
  /** Of this form; a copy of another one is left alone. */
  form: 1;
  beat: string;
  pattern: string;
  /** What a page shows, and a beat, in ticks. */
  page: number;
  beatTicks: number;
  /** The width of the column of names, in points. */
  names: number;
  /** The height of a lane, in points. */
  tall: number;
  lanes: EarlyLane[];
}

const rounded = (ticks: number): number => Math.round(ticks * 10) / 10;

/** What is shown at the next start before the app is there, lanes of that height in points; null where there is nothing. */
export const earlyOf = (state: RootState, tall = LANE_HEIGHT): Early | null => {
  const [beat, pattern] = [selectBeat(state), selectPattern(state)];
  if (!beat || !pattern) return null;
  const page = Math.min(barTicks(pattern.meter) / state.look.zoom, patternTicks(pattern));
  const sounding = new Set(soundingLanes(beat));
  const folded = new Set(beat.groups.filter((group) => group.folded).map(({ id }) => id));
  const shown = beat.lanes.filter(({ group }) => group === null || group === undefined || !folded.has(group));
  const lanes = shown.map((lane): EarlyLane => {
    const { material, pigment } = instrument(lane.instrument);
    const cells = laneDrawing(state, lane)?.cells ?? [];
    return {
      id: lane.id,
      name: lane.name,
      dye: lane.pigment ?? pigment,
      material,
      silent: !sounding.has(lane),
      steps: cells
        .filter(({ left }) => left + INSET < page)
        .map(({ step, left, right, velocity, pip, beads }) => {
          const bead = beads.find(({ stroke }) => stroke === 0);
          return [step, rounded(left), rounded(right), velocity, rounded(bead?.x ?? pip)];
        }),
    };
  });
  return {
    form: 1,
    beat: beat.id,
    pattern: pattern.id,
    page,
    beatTicks: beatTicks(pattern.meter),
    names: namesWidth(state.look.mixOpen),
    tall,
    lanes,
  };
};
