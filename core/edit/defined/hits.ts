import { HAND_RULES, HANDS } from '../../document/choices';
import { lanePatternOf } from '../../document/defaults';
import { gridTicks } from '../../document/grid';
import { RANGES } from '../../document/ranges';
import { rateOf } from '../../play/reading';
import { ticksPerMs } from '../../units';
import { moveHits, pasteHits } from '../clip';
import { setHands, stickBy } from '../handEdits';
import { eraseBetween, recordHit } from '../record';
import * as spots from '../spots';
import { choice, figure, FLAG, HIT, HITS, LANE, maybe, optional, patternEdit as edit } from '../define';
import { THINGS } from './things';

/** How far hits may be moved at once: by so many ticks, longer than any pattern. */
const MOVE = { least: -1_000_000, most: 1_000_000, unit: 'ticks' } as const;
const TICK = figure({ least: 0, most: 1e12, unit: 'ticks' });

/** Edits of hits: how hard, when, how long, how they are struck. */
export const HIT_EDITS = {
  setVelocities: edit({
    does: 'Gives hits one velocity',
    args: { spots: HITS, to: figure(RANGES.velocity) },
    run: (pattern, a) => spots.setVelocities(pattern, a.spots, a.to),
  }),
  rampVelocities: edit({
    does: 'Ramps velocities from the first hit to the last',
    args: { spots: HITS, from: figure(RANGES.velocity), to: figure(RANGES.velocity) },
    run: (pattern, a) => spots.rampVelocities(pattern, a.spots, a.from, a.to),
  }),
  scaleVelocities: edit({
    does: 'Makes hits softer or harder by a factor',
    args: { spots: HITS, factor: figure({ least: 0, most: 127 }) },
    run: (pattern, a) => spots.scaleVelocities(pattern, a.spots, a.factor),
  }),
  compressVelocities: edit({
    does: 'Changes velocity contrast',
    args: { spots: HITS, ratio: figure({ least: 0, most: 10 }) },
    run: (pattern, a) => spots.compressVelocities(pattern, a.spots, a.ratio),
  }),
  /** By the same amount, so that differences stay. */
  shiftVelocities: edit({
    does: 'Changes velocities by the same amount, so that differences stay',
    args: { spots: HITS, by: figure({ least: -126, most: 126 }) },
    run: (pattern, a) => spots.shiftVelocities(pattern, a.spots, a.by),
  }),
  nudgeHits: edit({
    does: 'Nudges hits by a part of their step',
    args: { spots: HITS, by: figure({ least: -1, most: 1, unit: 'steps' }) },
    run: (pattern, a) => spots.nudgeHits(pattern, a.spots, a.by),
  }),
  /** By so many ms, the same in every lane. */
  nudgeByMs: edit({
    does: 'Nudges hits by the same time in every lane, so that differences stay',
    args: { spots: HITS, ms: figure({ least: -6000, most: 6000, unit: 'ms' }) },
    run: (pattern, a, beat) =>
      spots.nudgeTogether(pattern, a.spots, a.ms * ticksPerMs(beat.tempo), (laneId) => {
        const { grid, rate } = lanePatternOf(pattern, laneId);
        return gridTicks(grid) / rateOf(rate);
      }),
  }),
  setNudges: edit({
    does: 'Sets the nudge of hits',
    args: { spots: HITS, to: figure(RANGES.nudge) },
    run: (pattern, a) => spots.setNudges(pattern, a.spots, a.to),
  }),
  setLengths: edit({
    does: 'Sets the length of hits; null lets them ring out',
    args: { spots: HITS, length: maybe(figure(RANGES.length)) },
    run: (pattern, a) => spots.setLengths(pattern, a.spots, a.length),
  }),
  lengthsToNext: edit({
    does: 'Lets hits last up to the next one',
    args: { spots: HITS },
    run: (pattern, a) => spots.lengthsToNext(pattern, a.spots),
  }),
  setChances: edit({
    does: 'Sets how likely hits are',
    args: { spots: HITS, chance: figure(RANGES.chance) },
    run: (pattern, a) => spots.setChances(pattern, a.spots, a.chance),
  }),
  setPasses: edit({
    does: 'Sets on which passes hits sound; null is every pass',
    args: { spots: HITS, passes: maybe(THINGS.passes) },
    run: (pattern, a) => spots.setPasses(pattern, a.spots, a.passes),
  }),
  setRolls: edit({
    does: 'Makes hits rolls; null makes them one stroke',
    args: { spots: HITS, roll: maybe(THINGS.roll) },
    run: (pattern, a) => spots.setRolls(pattern, a.spots, a.roll),
  }),
  setGraces: edit({
    does: 'Gives hits grace strokes; null takes them',
    args: { spots: HITS, grace: maybe(THINGS.graceStrokes) },
    run: (pattern, a) => spots.setGraces(pattern, a.spots, a.grace),
  }),
  removeHits: edit({
    does: 'Takes hits away',
    args: { spots: HITS },
    run: (pattern, a) => spots.removeHits(pattern, a.spots),
  }),
  /** @param shown a pattern that is only edited along does not grow by what is pasted beyond its end */
  pasteHits: edit({
    does: 'Puts copied hits to a step',
    args: { clip: THINGS.clip, at: HIT },
    run: (pattern, a, beat, shown = true) => {
      const pasted = pasteHits(
        pattern,
        a.clip,
        a.at,
        beat.lanes.map(({ id }) => id),
        shown,
      );
      return pasted.ok ? pasted.pattern : pattern;
    },
  }),
  moveHits: edit({
    does: 'Moves hits in time and from lane to lane',
    args: { spots: HITS, by: figure(MOVE), lanes: figure({ least: -63, most: 63, whole: true }) },
    run: (pattern, a, beat) => {
      const lanes = beat.lanes.map(({ id }) => id);
      const moved = moveHits(pattern, a.spots, a.by, a.lanes, lanes);
      return moved.ok ? moved.pattern : pattern;
    },
  }),
  recordHit: edit({
    does: 'Records a played hit, quantized by a percentage',
    args: {
      laneId: LANE,
      tick: TICK,
      velocity: figure(RANGES.velocity),
      quantize: figure(RANGES.share),
      pitch: optional(figure(RANGES.pitch)),
      straight: optional(FLAG),
    },
    run: (pattern, a, beat) =>
      beat.lanes.some(({ id }) => id === a.laneId) ? recordHit(beat, pattern, a) : pattern,
  }),
  eraseBetween: edit({
    does: 'Erases what a lane plays in a time range',
    args: { laneId: LANE, from: TICK, to: TICK },
    run: (pattern, a, beat) => eraseBetween(beat, pattern, a.laneId, a.from, a.to),
  }),
  setPitches: edit({
    does: 'Tunes hits',
    args: { spots: HITS, to: figure(RANGES.pitch) },
    run: (pattern, a) => spots.setPitches(pattern, a.spots, a.to),
  }),
  shiftPitches: edit({
    does: 'Tunes hits higher or lower by the same amount',
    args: { spots: HITS, by: figure(RANGES.pitch) },
    run: (pattern, a) => spots.shiftPitches(pattern, a.spots, a.by),
  }),
  setHands: edit({
    does: 'Says which hand plays hits; null leaves it to be found',
    args: { spots: HITS, hand: maybe(choice(HANDS)) },
    run: (pattern, a) => setHands(pattern, a.spots, a.hand),
  }),
  stickBy: edit({
    does: 'Gives hits their hands by a rule; the least effort leaves them to be found',
    args: { spots: HITS, rule: choice(HAND_RULES) },
    run: (pattern, a, beat) => stickBy(beat, pattern, a.spots, a.rule),
  }),
};
