import { OVERS } from '../../document/choices';
import { RANGES } from '../../document/ranges';
import { passesToSong, playedPasses } from '../playedRoutes';
import * as song from '../song';
import { takeFill } from '../takeFill';
import { choice, figure, id, maybe, NEW_ID, PLACE, some, TEXT, beatEdit as edit, FROM_TO } from '../define';
import { THINGS } from './things';

/** Edits of the song and of the tray beside it. */
export const SONG_EDITS = {
  toTray: edit({
    does: 'Puts a pattern into the tray',
    args: { id: NEW_ID, name: TEXT, patternId: id('pattern') },
    run: (beat, a) => song.toTray(beat, a),
  }),
  grooveToTray: edit({
    does: 'Puts a groove into the tray',
    args: { groove: THINGS.groove, patternId: NEW_ID, id: NEW_ID },
    run: (beat, a) => song.grooveToTray(beat, a.groove, a.patternId, a.id),
  }),
  fromTray: edit({
    does: 'Takes something out of the tray',
    args: { id: id('tray item') },
    run: (beat, a) => song.fromTray(beat, a.id),
  }),
  renameInTray: edit({
    does: 'Renames something in the tray',
    args: { id: id('tray item'), name: TEXT },
    run: (beat, a) => song.renameInTray(beat, a.id, a.name),
  }),
  moveInTray: edit({
    does: 'Moves something in the tray',
    args: { id: id('tray item'), to: PLACE },
    run: (beat, a) => song.moveInTray(beat, a.id, a.to),
  }),
  setSong: edit({
    does: 'Puts another song in the place of the one there is',
    args: { song: THINGS.song },
    run: (beat, a) => ({ ...beat, song: a.song }),
  }),
  addSection: edit({
    does: 'Adds a section; a place of null is the end',
    args: { section: THINGS.section, placeId: NEW_ID, at: maybe(PLACE) },
    run: (beat, a) => song.addSection(beat, a.section, a.placeId, a.at),
  }),
  changeSection: edit({
    does: 'Changes a section: name, feel, tempo, level, fill, silent lanes, what leads into it',
    args: { id: id('section'), change: THINGS.sectionChange },
    run: (beat, a) => song.changeSection(beat, a.id, a.change),
  }),
  addEntry: edit({
    does: 'Adds a pattern to a section',
    args: { sectionId: id('section'), entry: THINGS.entry },
    run: (beat, a) => song.addEntry(beat, a.sectionId, a.entry),
  }),
  changeEntry: edit({
    does: 'Sets how often a pattern of a section plays, or how many bars of it',
    args: {
      sectionId: id('section'),
      entryId: id('entry'),
      change: some({
        patternId: id('pattern'),
        times: figure(RANGES.times),
        bars: maybe(figure(RANGES.entryBars)),
      }),
    },
    run: (beat, a) => song.changeEntry(beat, a.sectionId, a.entryId, a.change),
  }),
  removeEntry: edit({
    does: 'Takes a pattern out of a section',
    args: { sectionId: id('section'), entryId: id('entry') },
    run: (beat, a) => song.removeEntry(beat, a.sectionId, a.entryId),
  }),
  moveEntry: edit({
    does: 'Moves a pattern within a section',
    args: { sectionId: id('section'), entryId: id('entry'), to: PLACE },
    run: (beat, a) => song.moveEntry(beat, a.sectionId, a.entryId, a.to),
  }),
  takeFill: edit({
    does: 'Ends a section with a fill',
    args: { sectionId: id('section'), offer: THINGS.fillOffer, patternId: NEW_ID, over: choice(OVERS) },
    run: (beat, a) => takeFill(beat, a.sectionId, a.offer, a.patternId, a.over),
  }),
  linkSection: edit({
    does: 'Plays a section at another place too',
    args: { place: THINGS.place, at: maybe(PLACE) },
    run: (beat, a) => song.linkSection(beat, a.place, a.at),
  }),
  duplicateSection: edit({
    does: 'Adds a copy of a section after it',
    args: { placeId: id('place'), sectionId: NEW_ID, newPlaceId: NEW_ID },
    run: (beat, a) => song.duplicateSection(beat, a.placeId, a.sectionId, a.newPlaceId),
  }),
  ownSection: edit({
    does: 'Gives a place a section of its own',
    args: { placeId: id('place'), sectionId: NEW_ID },
    run: (beat, a) => song.ownSection(beat, a.placeId, a.sectionId),
  }),
  movePlace: edit({
    does: 'Moves a section in the song',
    args: { placeId: id('place'), to: PLACE },
    run: (beat, a) => song.movePlace(beat, a.placeId, a.to),
  }),
  repeatPlace: edit({
    does: 'Sets how often a section plays',
    args: { placeId: id('place'), times: figure(RANGES.times) },
    run: (beat, a) => song.repeatPlace(beat, a.placeId, a.times),
  }),
  removePlace: edit({
    does: 'Takes a section out of the song',
    args: { placeId: id('place') },
    run: (beat, a) => song.removePlace(beat, a.placeId),
  }),
  passesToSong: edit({
    does: 'Puts passes that were played while routes were switched into the song, as a section',
    args: { switched: THINGS.switchedRoutes, ...FROM_TO, patternId: id('pattern'), name: TEXT, id: NEW_ID },
    run: (beat, a) => {
      const pattern = beat.patterns.find(({ id }) => id === a.patternId);
      const passes = pattern ? playedPasses(beat, pattern, a.switched, a.from, a.to) : [];
      return passesToSong(beat, a.patternId, passes, a.name, a.id);
    },
  }),
};
