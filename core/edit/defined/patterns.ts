import { PIGMENTS } from '../../document/choices';
import { lanePatternOf, stepsOf } from '../../document/defaults';
import { RANGES } from '../../document/ranges';
import { changeTake, dropTake, recalled, rolled } from '../../make/chance';
import * as moves from '../moves';
import { copyBar, repeatBars, setBars, setMeter } from '../patterns';
import { keepPasses, playedPasses } from '../playedRoutes';
import { writeMoves } from '../writeMoves';
import {
  choice,
  figure,
  FLAG,
  id,
  maybe,
  NEW_ID,
  optional,
  PLACE,
  SEED,
  some,
  TEXT,
  patternEdit as edit,
  NAME,
  FROM_TO,
} from '../define';
import { THINGS } from './things';

/** Edits of a pattern as a whole, and of its takes. */
export const WHOLE_PATTERN_EDITS = {
  recall: edit({
    does: 'Puts a take back in its place',
    args: { takeId: id('take'), id: NEW_ID },
    run: (pattern, a) => recalled(pattern, a.takeId, a.id),
  }),
  changeTake: edit({
    does: 'Names a take, or keeps it',
    args: { takeId: id('take'), change: some({ ...NAME, kept: FLAG }) },
    run: (pattern, a) => changeTake(pattern, a.takeId, a.change),
  }),
  dropTake: edit({
    does: 'Drops a take',
    args: { takeId: id('take') },
    run: (pattern, a) => dropTake(pattern, a.takeId),
  }),
  setDetour: edit({
    does: 'Plays the slots of the bar, or of the pattern, in another order; null plays them as written',
    args: { detour: maybe(THINGS.detour) },
    run: (pattern, a) => moves.setDetour(pattern, a.detour),
  }),
  keepPasses: edit({
    does: 'Keeps passes that were played while routes were switched, as takes',
    args: { switched: THINGS.switchedRoutes, ...FROM_TO, how: TEXT, id: NEW_ID },
    run: (pattern, a, beat) =>
      keepPasses(pattern, playedPasses(beat, pattern, a.switched, a.from, a.to), a.how, a.id),
  }),
  writeMoves: edit({
    does: 'Writes echoes, sparks and detours into the hits, so that every pass sounds as it did; or so many passes into a longer pattern',
    args: { passes: optional(figure({ least: 1, most: 16, whole: true })) },
    run: (pattern, a, beat) => writeMoves(pattern, beat, a.passes),
  }),
  /** @param parts what each lane plays by it; @param how in words */
  make: edit({
    does: 'Puts what a maker gives into lanes, as a take that keeps its settings',
    args: { parts: THINGS.laneParts, how: TEXT, made: THINGS.maker, seed: SEED, id: NEW_ID },
    run: (pattern, a, beat) =>
      rolled(
        pattern,
        // A maker's settings may name lanes of another beat.
        Object.keys(a.parts).filter((laneId) => beat.lanes.some(({ id }) => id === laneId)),
        (part, _steps, laneId) => a.parts[laneId] ?? part,
        a.how.slice(0, 80),
        a.made,
        a.seed,
        a.id,
      ),
  }),
  rename: edit({
    does: 'Renames the pattern',
    args: { name: TEXT },
    run: (pattern, a) => ({ ...pattern, name: a.name.trim() || pattern.name }),
  }),
  recolour: edit({
    does: 'Gives the pattern another dye',
    args: { pigment: choice(PIGMENTS) },
    run: (pattern, a) => ({
      ...pattern,
      pigment: a.pigment,
    }),
  }),
  setMeter: edit({
    does: 'Sets the time signature',
    args: { meter: THINGS.meter },
    run: (pattern, a) => setMeter(pattern, a.meter),
  }),
  setBars: edit({
    does: 'Sets how many bars there are',
    args: { bars: figure(RANGES.bars) },
    run: (pattern, a) => setBars(pattern, a.bars),
  }),
  repeatBars: edit({
    does: 'Makes the pattern twice as long and repeats its bars',
    args: {},
    run: (pattern) =>
      repeatBars(pattern, (laneId) => stepsOf(lanePatternOf(pattern, laneId), pattern)) ?? pattern,
  }),
  copyBar: edit({
    does: 'Copies a bar over another',
    args: { from: PLACE, to: PLACE },
    run: (pattern, a) => copyBar(pattern, a.from, a.to),
  }),
};
