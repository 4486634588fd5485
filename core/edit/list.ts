import { DIRECTIONS, HAND_RULES, HANDS, OFFBEAT_GRIDS, OVERS, PIGMENTS, RATES } from '../document/choices';
import { GRIDS } from '../document/grid';
import { INSTRUMENT_IDS } from '../document/instruments';
import { RANGES } from '../document/ranges';
import {
  choice,
  figure,
  FLAG,
  HIT,
  HITS,
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
  thing,
  type Described,
} from './arguments';
import type { BeatEdits, PatternEdits } from './edits';

/** How far hits may be moved at once: by so many ticks, longer than any pattern. */
const MOVE = { least: -1_000_000, most: 1_000_000, unit: 'ticks' } as const;
const TURN = { least: -4096, most: 4096, whole: true, unit: 'steps' } as const;
const TICK = figure({ least: 0, most: 1e12, unit: 'ticks' });
const NAME_CHANGE = { name: TEXT };

/** No more passes are kept at once than a section may hold. */
const PASS = figure({ least: 0, most: 4096, whole: true });
const PASSES = { switched: thing('switched routes'), from: PASS, to: PASS };

/** What a lane may be changed in. */
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

/** Every edit of a pattern: what it does, what it takes and from where to where. */
export const PATTERN_LIST: { [K in keyof PatternEdits]: Described<Parameters<PatternEdits[K]>[1]> } = {
  setVelocities: { does: 'Gives hits one velocity', args: { spots: HITS, to: figure(RANGES.velocity) } },
  rampVelocities: {
    does: 'Lets velocities rise or fall from the first hit to the last',
    args: { spots: HITS, from: figure(RANGES.velocity), to: figure(RANGES.velocity) },
  },
  scaleVelocities: {
    does: 'Makes hits softer or harder by a factor',
    args: { spots: HITS, factor: figure({ least: 0, most: 127 }) },
  },
  compressVelocities: {
    does: 'Brings velocities closer together, or further apart',
    args: { spots: HITS, ratio: figure({ least: 0, most: 10 }) },
  },
  shiftVelocities: {
    does: 'Changes velocities by the same amount, so that differences stay',
    args: { spots: HITS, by: figure({ least: -126, most: 126 }) },
  },
  nudgeHits: {
    does: 'Nudges hits by a part of their step',
    args: { spots: HITS, by: figure({ least: -1, most: 1, unit: 'steps' }) },
  },
  nudgeByMs: {
    does: 'Nudges hits by the same time in every lane, so that differences stay',
    args: { spots: HITS, ms: figure({ least: -6000, most: 6000, unit: 'ms' }) },
  },
  setNudges: { does: 'Sets the nudge of hits', args: { spots: HITS, to: figure(RANGES.nudge) } },
  setLengths: {
    does: 'Sets the length of hits; null lets them ring out',
    args: { spots: HITS, length: maybe(figure(RANGES.length)) },
  },
  lengthsToNext: { does: 'Lets hits last up to the next one', args: { spots: HITS } },
  setChances: { does: 'Sets how likely hits are', args: { spots: HITS, chance: figure(RANGES.chance) } },
  setPasses: {
    does: 'Sets on which passes hits sound; null is every pass',
    args: { spots: HITS, passes: maybe(thing('passes')) },
  },
  setRolls: {
    does: 'Makes hits rolls; null makes them one stroke',
    args: { spots: HITS, roll: maybe(thing('roll')) },
  },
  setGraces: {
    does: 'Gives hits grace strokes; null takes them',
    args: { spots: HITS, grace: maybe(thing('grace strokes')) },
  },
  removeHits: { does: 'Takes hits away', args: { spots: HITS } },
  pasteHits: { does: 'Puts copied hits to a step', args: { clip: thing('clip'), at: HIT } },
  moveHits: {
    does: 'Moves hits in time and from lane to lane',
    args: { spots: HITS, by: figure(MOVE), lanes: figure({ least: -63, most: 63, whole: true }) },
  },
  recordHit: {
    does: 'Takes down a stroke that was played, quantized by a share',
    args: {
      laneId: LANE,
      tick: TICK,
      velocity: figure(RANGES.velocity),
      quantize: figure(RANGES.share),
      pitch: optional(figure(RANGES.pitch)),
      straight: optional(FLAG),
    },
  },
  eraseBetween: {
    does: 'Takes away what a lane plays within a time',
    args: { laneId: LANE, from: TICK, to: TICK },
  },
  fillEvery: {
    does: 'Puts a hit on every nth step that is free',
    args: {
      laneIds: LANES,
      every: figure({ least: 1, most: 64, whole: true, unit: 'steps' }),
      from: PLACE,
      to: figure(RANGES.velocity),
    },
  },
  setPart: {
    does: 'Sets how lanes are read: grid, steps of their own, rate, direction, what all steps and off-beats are nudged by',
    args: {
      laneIds: LANES,
      change: some({
        grid: choice(GRIDS),
        steps: maybe(figure(RANGES.steps)),
        rate: choice(RATES),
        direction: choice(DIRECTIONS),
        shift: figure(RANGES.nudge),
        offbeat: figure(RANGES.nudge),
        offbeatGrid: choice(OFFBEAT_GRIDS),
      }),
    },
  },
  regrid: {
    does: 'Gives lanes another grid; their hits keep their time',
    args: { laneIds: LANES, grid: choice(GRIDS) },
  },
  copyBar: { does: 'Copies a bar over another', args: { from: PLACE, to: PLACE } },
  rotate: { does: 'Rotates lanes round their loop', args: { laneIds: LANES, by: figure(TURN) } },
  shift: {
    does: 'Shifts lanes by steps; what leaves is kept out of sight',
    args: { laneIds: LANES, by: figure(TURN) },
  },
  reverse: { does: 'Turns lanes back to front', args: { laneIds: LANES } },
  mirror: { does: 'Lets the second half mirror the first', args: { laneIds: LANES } },
  double: { does: 'Makes lanes twice as long and repeats them', args: { laneIds: LANES } },
  halve: { does: 'Makes lanes half as long', args: { laneIds: LANES } },
  stretch: {
    does: 'Moves hits apart or together in time by a factor',
    args: { laneIds: LANES, factor: figure({ least: 0.25, most: 4 }) },
  },
  thin: { does: 'Thins lanes out', args: { laneIds: LANES } },
  thicken: { does: 'Puts softer hits between those of lanes', args: { laneIds: LANES } },
  clearLanes: { does: 'Clears lanes', args: { laneIds: LANES } },
  randomize: {
    does: 'Rolls lanes anew, as a take',
    args: {
      laneIds: LANES,
      seed: SEED,
      id: NEW_ID,
      keep: some({ count: FLAG, places: FLAG, velocities: FLAG }),
    },
  },
  vary: {
    does: 'Changes a share of the hits of lanes, as a take',
    args: { laneIds: LANES, seed: SEED, id: NEW_ID, share: figure(RANGES.share) },
  },
  recall: { does: 'Puts a take back in its place', args: { takeId: id('take'), id: NEW_ID } },
  changeTake: {
    does: 'Names a take, or keeps it',
    args: { takeId: id('take'), change: some({ ...NAME_CHANGE, kept: FLAG }) },
  },
  dropTake: { does: 'Drops a take', args: { takeId: id('take') } },
  setPitches: { does: 'Tunes hits', args: { spots: HITS, to: figure(RANGES.pitch) } },
  setHands: {
    does: 'Says which hand plays hits; null leaves it to be found',
    args: { spots: HITS, hand: maybe(choice(HANDS)) },
  },
  stickBy: {
    does: 'Gives hits their hands by a rule; the least effort leaves them to be found',
    args: { spots: HITS, rule: choice(HAND_RULES) },
  },
  shiftPitches: {
    does: 'Tunes hits higher or lower by the same amount',
    args: { spots: HITS, by: figure(RANGES.pitch) },
  },
  setEchoes: {
    does: 'Lets repeats follow the hits of lanes; null lets none',
    args: { laneIds: LANES, echoes: maybe(thing('echoes')) },
  },
  setSparks: {
    does: 'Lets a lane set off other lanes; null lets it set off none',
    args: { laneId: LANE, sparks: maybe(thing('sparks')) },
  },
  setDetour: {
    does: 'Plays the slots of the bar, or of the pattern, in another order; null plays them as written',
    args: { detour: maybe(thing('detour')) },
  },
  keepPasses: {
    does: 'Keeps passes that were played while routes were switched, as takes',
    args: { ...PASSES, how: TEXT, id: NEW_ID },
  },
  writeMoves: {
    does: 'Writes echoes, sparks and detours into the hits, so that every pass sounds as it did; or so many passes into a longer pattern',
    args: { passes: optional(figure({ least: 1, most: 16, whole: true })) },
  },
  make: {
    does: 'Puts what a maker gives into lanes, as a take that keeps its settings',
    args: { parts: thing('lane patterns'), how: TEXT, made: thing('maker'), seed: SEED, id: NEW_ID },
  },
  rename: { does: 'Renames the pattern', args: { name: TEXT } },
  recolour: { does: 'Gives the pattern another dye', args: { pigment: choice(PIGMENTS) } },
  setMeter: { does: 'Sets the time signature', args: { meter: thing('meter') } },
  setBars: { does: 'Sets how many bars there are', args: { bars: figure(RANGES.bars) } },
  repeatBars: { does: 'Makes the pattern twice as long and repeats its bars', args: {} },
  lanePreset: {
    does: 'Puts a preset rhythm into a lane',
    args: { laneId: LANE, presetId: id('lane preset'), asWritten: optional(FLAG) },
  },
};

/** Every edit of a beat as a whole, likewise. */
export const BEAT_LIST: { [K in keyof BeatEdits]: Described<Parameters<BeatEdits[K]>[1]> } = {
  makeBeat: {
    does: 'Puts what a whole beat gives into a pattern, with the lanes and the time signature that it needs, as a take',
    args: {
      patternId: id('pattern'),
      lanes: thing('lanes'),
      meter: optional(thing('meter')),
      parts: thing('lane patterns'),
      how: TEXT,
      made: thing('maker'),
      seed: SEED,
      id: NEW_ID,
    },
  },
  setLevels: {
    does: 'Sets what ghost, normal and accent are',
    args: {
      levels: some({
        ghost: figure(RANGES.velocity),
        normal: figure(RANGES.velocity),
        accent: figure(RANGES.velocity),
      }),
    },
  },
  addPattern: { does: 'Adds an empty pattern like another', args: { id: NEW_ID, like: thing('pattern') } },
  duplicatePattern: { does: 'Adds a variation of a pattern', args: { id: NEW_ID, from: id('pattern') } },
  removePattern: { does: 'Removes a pattern', args: { id: id('pattern') } },
  movePattern: { does: 'Moves a pattern in the list', args: { id: id('pattern'), to: PLACE } },
  patternPreset: {
    does: 'Puts a preset into a pattern, with the lanes that it needs',
    args: { patternId: id('pattern'), presetId: id('pattern preset') },
  },
  addLane: { does: 'Adds a lane', args: { id: NEW_ID, instrument: choice(INSTRUMENT_IDS) } },
  copyPattern: { does: 'Adds a copy of a pattern', args: { id: NEW_ID, pattern: thing('pattern') } },
  removeLane: { does: 'Removes a lane', args: { laneId: LANE } },
  moveLane: { does: 'Moves a lane in the list', args: { laneId: LANE, to: PLACE } },
  shiftNotes: {
    does: 'Shifts the note numbers of all lanes, where none leaves 0 to 127',
    args: { by: figure({ least: -127, most: 127, whole: true, unit: 'semitones' }) },
  },
  numberLanes: {
    does: 'Gives lanes their note numbers at once, where none leaves 0 to 127',
    args: { notes: thing('notes by lane') },
  },
  groupLanes: { does: 'Puts lanes together in a group', args: { id: NEW_ID, name: TEXT, laneIds: LANES } },
  ungroup: { does: 'Takes a group apart', args: { groupId: id('group') } },
  setGroup: {
    does: 'Names or folds a group',
    args: { groupId: id('group'), change: some({ ...NAME_CHANGE, folded: FLAG }) },
  },
  setGroupLanes: {
    does: 'Changes all lanes of a group',
    args: { groupId: id('group'), change: LANE_CHANGE },
  },
  clearSilenced: { does: 'Clears all mutes and solos', args: {} },
  bringLanes: {
    does: 'Brings in lanes of another beat',
    args: { patternId: id('pattern'), from: thing('beat'), laneIds: LANES, ids: thing('ids by lane') },
  },
  ownFeel: {
    does: 'Gives a pattern a feel of its own, or the beat’s',
    args: { patternId: id('pattern'), own: FLAG },
  },
  useFeel: {
    does: 'Plays a pattern with another feel',
    args: { patternId: id('pattern'), feel: thing('feel') },
  },
  keepFeel: { does: 'Keeps a feel under a name', args: { id: NEW_ID, name: TEXT, patternId: id('pattern') } },
  changeKeptFeel: {
    does: 'Changes a feel that was kept',
    args: { id: id('feel'), change: some({ ...NAME_CHANGE, feel: thing('feel') }) },
  },
  dropFeel: { does: 'Forgets a feel that was kept', args: { id: id('feel') } },
  setBlend: {
    does: 'Blends the feel with another; null ends that',
    args: { patternId: id('pattern'), blend: maybe(thing('blend')) },
  },
  keepTemplate: { does: 'Keeps a template with the beat', args: { template: thing('template') } },
  dropTemplate: { does: 'Forgets a template', args: { id: id('template') } },
  bringGroove: { does: 'Brings in a groove', args: { groove: thing('groove'), bring: thing('bring') } },
  useMap: {
    does: 'Writes the beat with another drum map',
    args: { map: thing('drum map'), choice: thing('map choice') },
  },
  keepRoute: { does: 'Keeps a route under a name', args: { id: NEW_ID, name: TEXT, route: thing('route') } },
  dropRoute: { does: 'Forgets a route', args: { id: id('route') } },
  passesToSong: {
    does: 'Puts passes that were played while routes were switched into the song, as a section',
    args: { ...PASSES, patternId: id('pattern'), name: TEXT, id: NEW_ID },
  },
  setKey: {
    does: 'Gives a pattern a key that begins it; null takes it',
    args: { id: id('pattern'), key: maybe(thing('key')) },
  },
  setVoice: {
    does: 'Gives a lane a sound of its own; null gives it that of the kit',
    args: { laneId: LANE, voice: maybe(thing('voice')) },
  },
  setKitVoice: {
    does: 'Gives an instrument another sound in the kit; null gives it that of the kit below',
    args: { instrument: choice(INSTRUMENT_IDS), voice: maybe(thing('voice')) },
  },
  setKit: {
    does: 'Plays the beat on another kit, with sounds of one’s own over it or none',
    args: { kit: TEXT, own: maybe(thing('own kit')) },
  },
  nameKit: { does: 'Names the kit of one’s own', args: { name: TEXT } },
  setCeiling: {
    does: 'Sets how loud it may get; null is just below full scale',
    args: { ceiling: maybe(figure(RANGES.ceiling)) },
  },
  addLoop: {
    does: 'Adds a lane that plays the slices of a loop, as it was recorded',
    args: {
      id: NEW_ID,
      name: TEXT,
      loop: thing('loop'),
      patternId: id('pattern'),
      note: optional(figure(RANGES.note)),
    },
  },
  setLoop: {
    does: 'Changes the loop of a lane: its marks, its slices',
    args: { laneId: LANE, loop: thing('loop'), rewrite: optional(id('pattern')) },
  },
  loopToDrums: {
    does: 'Spreads the slices of a loop over the drums of the kit',
    args: {
      loop: thing('loop'),
      told: thing('told slices'),
      patternId: id('pattern'),
      ids: thing('ids by lane'),
    },
  },
  toTray: {
    does: 'Puts a pattern into the tray',
    args: { id: NEW_ID, name: TEXT, patternId: id('pattern') },
  },
  grooveToTray: {
    does: 'Puts a groove into the tray',
    args: { groove: thing('groove'), patternId: NEW_ID, id: NEW_ID },
  },
  fromTray: { does: 'Takes something out of the tray', args: { id: id('tray item') } },
  renameInTray: { does: 'Renames something in the tray', args: { id: id('tray item'), name: TEXT } },
  moveInTray: { does: 'Moves something in the tray', args: { id: id('tray item'), to: PLACE } },
  setSong: { does: 'Puts another song in the place of the one there is', args: { song: thing('song') } },
  addSection: {
    does: 'Adds a section; a place of null is the end',
    args: { section: thing('section'), placeId: NEW_ID, at: maybe(PLACE) },
  },
  changeSection: {
    does: 'Changes a section: name, feel, tempo, level, fill, silent lanes, what leads into it',
    args: { id: id('section'), change: thing('section change') },
  },
  addEntry: {
    does: 'Adds a pattern to a section',
    args: { sectionId: id('section'), entry: thing('entry') },
  },
  changeEntry: {
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
  },
  removeEntry: {
    does: 'Takes a pattern out of a section',
    args: { sectionId: id('section'), entryId: id('entry') },
  },
  moveEntry: {
    does: 'Moves a pattern within a section',
    args: { sectionId: id('section'), entryId: id('entry'), to: PLACE },
  },
  takeFill: {
    does: 'Ends a section with a fill',
    args: { sectionId: id('section'), offer: thing('fill offer'), patternId: NEW_ID, over: choice(OVERS) },
  },
  linkSection: {
    does: 'Plays a section at another place too',
    args: { place: thing('place'), at: maybe(PLACE) },
  },
  duplicateSection: {
    does: 'Adds a copy of a section after it',
    args: { placeId: id('place'), sectionId: NEW_ID, newPlaceId: NEW_ID },
  },
  ownSection: {
    does: 'Gives a place a section of its own',
    args: { placeId: id('place'), sectionId: NEW_ID },
  },
  movePlace: { does: 'Moves a section in the song', args: { placeId: id('place'), to: PLACE } },
  repeatPlace: {
    does: 'Sets how often a section plays',
    args: { placeId: id('place'), times: figure(RANGES.times) },
  },
  removePlace: { does: 'Takes a section out of the song', args: { placeId: id('place') } },
  writeIn: {
    does: 'Writes the feel into the hits of a lane, or of all by null',
    args: { patternId: id('pattern'), laneId: maybe(LANE), single: FLAG },
  },
};
