import { INSTRUMENT_IDS } from '../../document/instruments';
import { RANGES } from '../../document/ranges';
import * as sounds from '../sounds';
import { choice, figure, id, LANE, maybe, NEW_ID, optional, TEXT, beatEdit as edit } from '../define';
import { THINGS } from './things';

/** Edits of sounds of one’s own. */
export const SOUND_EDITS = {
  setVoice: edit({
    does: 'Gives a lane a sound of its own; null gives it that of the kit',
    args: { laneId: LANE, voice: maybe(THINGS.voice) },
    run: (beat, a) => sounds.setVoice(beat, a.laneId, a.voice),
  }),
  setKitVoice: edit({
    does: 'Gives an instrument another sound in the kit; null gives it that of the kit below',
    args: { instrument: choice(INSTRUMENT_IDS), voice: maybe(THINGS.voice) },
    run: (beat, a) => sounds.setKitVoice(beat, a.instrument, a.voice),
  }),
  setKit: edit({
    does: 'Plays the beat on another kit, with sounds of one’s own over it or none',
    args: { kit: TEXT, own: maybe(THINGS.ownKit) },
    run: (beat, a) => sounds.setKit(beat, a.kit, a.own),
  }),
  nameKit: edit({
    does: 'Names the kit of one’s own',
    args: { name: TEXT },
    run: (beat, a) => sounds.nameKit(beat, a.name),
  }),
  setCeiling: edit({
    does: 'Sets how loud it may get; null is just below full scale',
    args: { ceiling: maybe(figure(RANGES.ceiling)) },
    run: (beat, a) => sounds.setCeiling(beat, a.ceiling),
  }),
  addLoop: edit({
    does: 'Adds a lane that plays the slices of a loop, as it was recorded',
    args: {
      id: NEW_ID,
      name: TEXT,
      loop: THINGS.loop,
      patternId: id('pattern'),
      note: optional(figure(RANGES.note)),
    },
    run: (beat, a) => {
      const { note, ...rest } = a;
      return sounds.addLoop(beat, note === undefined ? rest : { ...rest, note });
    },
  }),
  setLoop: edit({
    does: 'Changes the loop of a lane: its marks, its slices',
    args: { laneId: LANE, loop: THINGS.loop, rewrite: optional(id('pattern')) },
    run: (beat, a) => sounds.setLoop(beat, a.laneId, a.loop, a.rewrite),
  }),
  loopToDrums: edit({
    does: 'Spreads the slices of a loop over the drums of the kit',
    args: {
      loop: THINGS.loop,
      told: THINGS.toldSlices,
      patternId: id('pattern'),
      ids: THINGS.idsByLane,
    },
    run: (beat, a) => sounds.loopToDrums(beat, a),
  }),
};
