import { setPattern } from '../../document/defaults';
import { INSTRUMENT_IDS } from '../../document/instruments';
import { MOST, PIGMENTS } from '../../document/choices';
import { RANGES } from '../../document/ranges';
import type { Beat } from '../../document/schema';
import { writtenWith } from '../../midi/drumMap/laneMap';
import { bringIn } from '../../bring/bring';
import {
  addLane,
  bringLanes,
  groupLanes,
  moveLane,
  removeLane,
  setGroup,
  setGroupLanes,
  ungroup,
} from '../lanes';
import * as moves from '../moves';
import { addPattern, copyPattern, duplicatePattern, movedTo, removePattern, setKey } from '../patterns';
import { applyPatternPreset, PATTERN_PRESETS } from '../presets';
import { WHOLE_PATTERN_EDITS } from './patterns';
import {
  choice,
  figure,
  FLAG,
  id,
  LANE,
  LANES,
  maybe,
  NEW_ID,
  optional,
  PLACE,
  SEED,
  some,
  TEXT,
  beatEdit as edit,
  NAME,
} from '../define';
import { THINGS } from './things';

/** The properties of a lane that may be changed. */
const LANE_CHANGE = some({
  name: TEXT,
  instrument: choice(INSTRUMENT_IDS),
  note: figure(RANGES.note),
  channel: figure(RANGES.channel),
  level: figure(RANGES.level),
  pan: figure(RANGES.pan),
  mute: FLAG,
  solo: FLAG,
  pigment: choice(PIGMENTS),
  choke: figure(RANGES.choke),
  tune: figure(RANGES.tune),
  decay: figure(RANGES.decay),
  lowPass: figure(RANGES.lowPass),
  highPass: figure(RANGES.highPass),
  slide: figure(RANGES.slide),
});

const presetLanes = (beat: Beat, presetId: string): Beat => {
  const preset = PATTERN_PRESETS.find(({ id }) => id === presetId);
  if (!preset) return beat;
  return applyPatternPreset(beat, beat.patterns[0]!, preset).missing.reduce((now, id) => {
    let laneId: string = id;
    while (now.lanes.some((lane) => lane.id === laneId)) laneId += '+';
    return addLane(now, laneId, id);
  }, beat);
};

/** Edits of the beat: its patterns, its lanes, what is brought in. */
export const WHOLE_BEAT_EDITS = {
  /** @param lanes that are added for it @param meter that the pattern takes for it */
  makeBeat: edit({
    does: 'Puts what a whole beat gives into a pattern, with the lanes and the time signature that it needs, as a take',
    args: {
      patternId: id('pattern'),
      lanes: THINGS.lanes,
      meter: optional(THINGS.meter),
      parts: THINGS.laneParts,
      how: TEXT,
      made: THINGS.maker,
      seed: SEED,
      id: NEW_ID,
    },
    run: (beat, a) => {
      const { patternId, lanes, meter, ...args } = a;
      const fresh = lanes.filter(({ id }) => beat.lanes.every((lane) => lane.id !== id));
      const roomy = { ...beat, lanes: [...beat.lanes, ...fresh].slice(0, MOST.lanes) };
      const pattern = roomy.patterns.find(({ id }) => id === patternId);
      if (!pattern) return roomy;
      const metered = meter ? WHOLE_PATTERN_EDITS.setMeter.run(pattern, { meter }, roomy, true) : pattern;
      return setPattern(roomy, WHOLE_PATTERN_EDITS.make.run(metered, args, roomy, true));
    },
  }),
  setLevels: edit({
    does: 'Sets what ghost, normal and accent are',
    args: {
      levels: some({
        ghost: figure(RANGES.velocity),
        normal: figure(RANGES.velocity),
        accent: figure(RANGES.velocity),
      }),
    },
    run: (beat, a) => ({
      ...beat,
      levels: { ...beat.levels, ...a.levels },
    }),
  }),
  addPattern: edit({
    does: 'Adds an empty pattern like another',
    args: { id: NEW_ID, like: THINGS.pattern },
    run: (beat, a) => addPattern(beat, a.id, a.like),
  }),
  duplicatePattern: edit({
    does: 'Adds a variation of a pattern',
    args: { id: NEW_ID, from: id('pattern') },
    run: (beat, a) => duplicatePattern(beat, a.id, a.from),
  }),
  /** Copies a pattern of the beat under the name of its own. */
  copyPattern: edit({
    does: 'Adds a copy of a pattern',
    args: { id: NEW_ID, pattern: THINGS.pattern },
    run: (beat, a) => copyPattern(beat, a.id, a.pattern),
  }),
  removePattern: edit({
    does: 'Removes a pattern',
    args: { id: id('pattern') },
    run: (beat, a) => removePattern(beat, a.id),
  }),
  movePattern: edit({
    does: 'Moves a pattern in the list',
    args: { id: id('pattern'), to: PLACE },
    run: (beat, a) => ({
      ...beat,
      patterns: movedTo(beat.patterns, a.id, a.to),
    }),
  }),
  /** Also adds the lanes that the preset needs and the beat does not have. */
  patternPreset: edit({
    does: 'Puts a preset into a pattern, with the lanes that it needs',
    args: { patternId: id('pattern'), presetId: id('pattern preset') },
    run: (beat, a) => {
      const preset = PATTERN_PRESETS.find(({ id }) => id === a.presetId);
      const pattern = beat.patterns.find(({ id }) => id === a.patternId);
      if (!preset || !pattern) return beat;
      const ready = presetLanes(beat, a.presetId);
      return setPattern(ready, applyPatternPreset(ready, pattern, preset).pattern);
    },
  }),
  setKey: edit({
    does: 'Gives a pattern a key that begins it; null takes it',
    args: { id: id('pattern'), key: maybe(THINGS.key) },
    run: (beat, a) => setKey(beat, a.id, a.key),
  }),
  bringGroove: edit({
    does: 'Brings in a groove',
    args: { groove: THINGS.groove, bring: THINGS.bring },
    run: (beat, a) => bringIn(beat, a.groove, a.bring).beat,
  }),
  keepRoute: edit({
    does: 'Keeps a route under a name',
    args: { id: NEW_ID, name: TEXT, route: THINGS.route },
    run: (beat, a) => moves.keepRoute(beat, a),
  }),
  dropRoute: edit({
    does: 'Forgets a route',
    args: { id: id('route') },
    run: (beat, a) => moves.dropRoute(beat, a.id),
  }),
  addLane: edit({
    does: 'Adds a lane',
    args: { id: NEW_ID, instrument: choice(INSTRUMENT_IDS) },
    run: (beat, a) => addLane(beat, a.id, a.instrument),
  }),
  removeLane: edit({
    does: 'Removes a lane',
    args: { laneId: LANE },
    run: (beat, a) => removeLane(beat, a.laneId),
  }),
  moveLane: edit({
    does: 'Moves a lane in the list',
    args: { laneId: LANE, to: PLACE },
    run: (beat, a) => moveLane(beat, a.laneId, a.to),
  }),
  shiftNotes: edit({
    does: 'Shifts the note numbers of all lanes, where none leaves 0 to 127',
    args: { by: figure({ least: -127, most: 127, whole: true, unit: 'semitones' }) },
    run: (beat, a) => ({
      ...beat,
      lanes: beat.lanes.every(({ note }) => note + a.by >= 0 && note + a.by <= 127)
        ? beat.lanes.map((lane) => ({ ...lane, note: lane.note + a.by }))
        : beat.lanes,
    }),
  }),
  /** All or none: where one would leave 0 to 127, each keeps the note that it has. */
  numberLanes: edit({
    does: 'Gives lanes their note numbers at once, where none leaves 0 to 127',
    args: { notes: THINGS.notesByLane },
    run: (beat, a) =>
      Object.values(a.notes).every((note) => Number.isInteger(note) && note >= 0 && note <= 127)
        ? { ...beat, lanes: beat.lanes.map((lane) => ({ ...lane, note: a.notes[lane.id] ?? lane.note })) }
        : beat,
  }),
  groupLanes: edit({
    does: 'Puts lanes together in a group',
    args: { id: NEW_ID, name: TEXT, laneIds: LANES },
    run: (beat, a) => groupLanes(beat, a.id, a.name, a.laneIds),
  }),
  ungroup: edit({
    does: 'Takes a group apart',
    args: { groupId: id('group') },
    run: (beat, a) => ungroup(beat, a.groupId),
  }),
  setGroup: edit({
    does: 'Names or folds a group',
    args: { groupId: id('group'), change: some({ ...NAME, folded: FLAG }) },
    run: (beat, a) => setGroup(beat, a.groupId, a.change),
  }),
  setGroupLanes: edit({
    does: 'Changes all lanes of a group',
    args: { groupId: id('group'), change: LANE_CHANGE },
    run: (beat, a) => setGroupLanes(beat, a.groupId, a.change),
  }),
  clearSilenced: edit({
    does: 'Clears all mutes and solos',
    args: {},
    run: (beat) => ({
      ...beat,
      lanes: beat.lanes.map((lane) =>
        lane.mute || lane.solo ? { ...lane, mute: false, solo: false } : lane,
      ),
    }),
  }),
  bringLanes: edit({
    does: 'Brings in lanes of another beat',
    args: { patternId: id('pattern'), from: THINGS.beat, laneIds: LANES, ids: THINGS.idsByLane },
    run: (beat, a) => bringLanes(beat, a.patternId, a.from, a.laneIds, (laneId) => a.ids[laneId] ?? laneId),
  }),
  useMap: edit({
    does: 'Writes the beat with another drum map',
    args: { map: THINGS.drumMap, choice: THINGS.mapChoice },
    run: (beat, a) => writtenWith(beat, a.map, a.choice),
  }),
};
