import { commitFeel } from '../../play/commitFeel';
import {
  changeKeptFeel,
  dropFeel,
  dropTemplate,
  keepFeel,
  keepTemplate,
  ownFeel,
  setBlend,
  useFeel,
} from '../feels';
import { FLAG, id, LANE, maybe, NEW_ID, some, TEXT, beatEdit as edit, NAME } from '../define';
import { THINGS } from './things';

/** Edits of which feel is played with, and of those that are kept. */
export const KEPT_FEEL_EDITS = {
  ownFeel: edit({
    does: 'Gives a pattern a feel of its own, or the beat’s',
    args: { patternId: id('pattern'), own: FLAG },
    run: (beat, a) => ownFeel(beat, a.patternId, a.own),
  }),
  useFeel: edit({
    does: 'Plays a pattern with another feel',
    args: { patternId: id('pattern'), feel: THINGS.feel },
    run: (beat, a) => useFeel(beat, a.patternId, a.feel),
  }),
  keepFeel: edit({
    does: 'Keeps a feel under a name',
    args: { id: NEW_ID, name: TEXT, patternId: id('pattern') },
    run: (beat, a) => keepFeel(beat, a.id, a.name, a.patternId),
  }),
  changeKeptFeel: edit({
    does: 'Changes a feel that was kept',
    args: { id: id('feel'), change: some({ ...NAME, feel: THINGS.feel }) },
    run: (beat, a) => changeKeptFeel(beat, a.id, a.change),
  }),
  dropFeel: edit({
    does: 'Forgets a feel that was kept',
    args: { id: id('feel') },
    run: (beat, a) => dropFeel(beat, a.id),
  }),
  setBlend: edit({
    does: 'Blends the feel with another; null ends that',
    args: { patternId: id('pattern'), blend: maybe(THINGS.blend) },
    run: (beat, a) => setBlend(beat, a.patternId, a.blend),
  }),
  keepTemplate: edit({
    does: 'Keeps a template with the beat',
    args: { template: THINGS.template },
    run: (beat, a) => keepTemplate(beat, a.template),
  }),
  dropTemplate: edit({
    does: 'Deletes a template',
    args: { id: id('template') },
    run: (beat, a) => dropTemplate(beat, a.id),
  }),
  writeIn: edit({
    does: 'Writes the feel into the hits of a lane, or of all by null',
    args: { patternId: id('pattern'), laneId: maybe(LANE), single: FLAG },
    run: (beat, a) => commitFeel(beat, a.patternId, a.laneId, a.single),
  }),
};
