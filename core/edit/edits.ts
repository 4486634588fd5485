import { lanePatternOf, patternTicks, stepsOf } from '../document/defaults';
import { heldAll, type Argument } from './arguments';
import { BEAT_LIST, PATTERN_LIST } from './list';
import { gridTicks, type Grid } from '../document/grid';
import type { InstrumentId } from '../document/instruments';
import type { Meter } from '../document/meter';
import type {
  Beat,
  Detour,
  Echoes,
  Entry,
  Fill,
  Grace,
  Group,
  Hit,
  Lane,
  Levels,
  LanePattern,
  Loop,
  NamedRoute,
  OwnKit,
  Pattern,
  PatternKey,
  Place,
  Roll,
  Section,
  Song,
  Spark,
  Take,
  TrayItem,
  Voice,
} from '../document/schema';
import type { DrumMap } from '../document/drumMapSchema';
import type { Feel, NamedFeel, Template } from '../document/feelSchema';
import { bringIn, type Bring } from './bring';
import type { Groove } from '../groove/groove';
import { writtenWith, type MapChoice } from '../midi/drumMap/laneMap';
import * as song from './song';
import type { SectionChange } from './song';
import type { FillOffer } from './fills';
import { takeFill } from './takeFill';
import { setHands, stickBy } from './handEdits';
import type { Hand, HandRule } from '../document/choices';
import { rateOf } from '../play/reading';
import { ticksPerMs, type MidiNote } from '../units';
import { setPattern } from './beatEdits';
import { MOST } from '../document/choices';
import { changeTake, dropTake, randomized, recalled, rolled, varied, type Held } from '../make/chance';
import {
  changeKeptFeel,
  dropFeel,
  dropTemplate,
  keepFeel,
  keepTemplate,
  ownFeel,
  setBlend,
  useFeel,
} from './feels';
import {
  addLane,
  bringLanes,
  groupLanes,
  moveLane,
  removeLane,
  setGroup,
  setGroupLanes,
  ungroup,
} from './lanes';
import * as moves from './moves';
import { writeMoves } from './writeMoves';
import * as parts from './parts';
import {
  addPattern,
  copyBar,
  copyPattern,
  duplicatePattern,
  movedTo,
  removePattern,
  repeatBars,
  setBars,
  setKey,
  setMeter,
} from './patterns';
import { keepPasses, passesToSong, playedPasses, type PassesPlayed } from './playedRoutes';
import { applyLanePreset, applyPatternPreset, LANE_PRESETS, PATTERN_PRESETS } from './presets';
import { eraseBetween, recordHit, type Played } from './record';
import * as sounds from './sounds';
import * as spots from './spots';
import { commitFeel } from './commitFeel';
import { moveHits, pasteHits, type Box, type Clip } from './clip';
import type { Spot } from './spots';

/**
 * Every edit by name, so that an edit is plain data: it can be sent to several patterns, named in the history and replayed.
 * An edit that cannot be made gives back what it was given.
 */

interface OnLanes {
  laneIds: string[];
}

const each = (
  pattern: Pattern,
  laneIds: string[],
  change: (now: Pattern, laneId: string) => Pattern | null,
) => laneIds.reduce((now, laneId) => change(now, laneId) ?? now, pattern);

/** Edits of one pattern; the beat is there to be looked at. */
export const PATTERN_EDITS = {
  setVelocities: (pattern: Pattern, a: { spots: Spot[]; to: number }) =>
    spots.setVelocities(pattern, a.spots, a.to),
  rampVelocities: (pattern: Pattern, a: { spots: Spot[]; from: number; to: number }) =>
    spots.rampVelocities(pattern, a.spots, a.from, a.to),
  scaleVelocities: (pattern: Pattern, a: { spots: Spot[]; factor: number }) =>
    spots.scaleVelocities(pattern, a.spots, a.factor),
  compressVelocities: (pattern: Pattern, a: { spots: Spot[]; ratio: number }) =>
    spots.compressVelocities(pattern, a.spots, a.ratio),
  /** By the same amount, so that differences stay. */
  shiftVelocities: (pattern: Pattern, a: { spots: Spot[]; by: number }) =>
    spots.shiftVelocities(pattern, a.spots, a.by),
  nudgeHits: (pattern: Pattern, a: { spots: Spot[]; by: number }) => spots.nudgeHits(pattern, a.spots, a.by),
  /** By so many ms, the same in every lane. */
  nudgeByMs: (pattern: Pattern, a: { spots: Spot[]; ms: number }, beat: Beat) =>
    spots.nudgeTogether(pattern, a.spots, a.ms * ticksPerMs(beat.tempo), (laneId) => {
      const { grid, rate } = lanePatternOf(pattern, laneId);
      return gridTicks(grid) / rateOf(rate);
    }),
  setNudges: (pattern: Pattern, a: { spots: Spot[]; to: number }) => spots.setNudges(pattern, a.spots, a.to),
  setLengths: (pattern: Pattern, a: { spots: Spot[]; length: number | null }) =>
    spots.setLengths(pattern, a.spots, a.length),
  lengthsToNext: (pattern: Pattern, a: { spots: Spot[] }) => spots.lengthsToNext(pattern, a.spots),
  setChances: (pattern: Pattern, a: { spots: Spot[]; chance: number }) =>
    spots.setChances(pattern, a.spots, a.chance),
  setPasses: (pattern: Pattern, a: { spots: Spot[]; passes: Hit['passes'] | null }) =>
    spots.setPasses(pattern, a.spots, a.passes),
  setRolls: (pattern: Pattern, a: { spots: Spot[]; roll: Roll | null }) =>
    spots.setRolls(pattern, a.spots, a.roll),
  setGraces: (pattern: Pattern, a: { spots: Spot[]; grace: Grace[] | null }) =>
    spots.setGraces(pattern, a.spots, a.grace),
  removeHits: (pattern: Pattern, a: { spots: Spot[] }) => spots.removeHits(pattern, a.spots),
  /** @param shown a pattern that is only edited along does not grow by what is pasted beyond its end */
  pasteHits: (pattern: Pattern, a: { clip: Clip; at: Spot }, beat: Beat, shown = true) => {
    const pasted = pasteHits(
      pattern,
      a.clip,
      a.at,
      beat.lanes.map(({ id }) => id),
      shown,
    );
    return pasted.ok ? pasted.pattern : pattern;
  },
  moveHits: (pattern: Pattern, a: { spots: Spot[]; by: number; lanes: number }, beat: Beat) => {
    const lanes = beat.lanes.map(({ id }) => id);
    const moved = moveHits(pattern, a.spots, a.by, a.lanes, lanes);
    return moved.ok ? moved.pattern : pattern;
  },
  recordHit: (pattern: Pattern, a: Played, beat: Beat) =>
    beat.lanes.some(({ id }) => id === a.laneId) ? recordHit(beat, pattern, a) : pattern,
  eraseBetween: (pattern: Pattern, a: { laneId: string; from: number; to: number }, beat: Beat) =>
    eraseBetween(beat, pattern, a.laneId, a.from, a.to),
  fillEvery: (pattern: Pattern, a: OnLanes & { every: number; from: number; to: number }) =>
    each(pattern, a.laneIds, (now, laneId) => spots.fillEvery(now, laneId, a.every, a.from, a.to)),
  setPart: (pattern: Pattern, a: OnLanes & { change: Partial<Omit<LanePattern, 'hits'>> }) =>
    each(pattern, a.laneIds, (now, laneId) => parts.setPart(now, laneId, a.change)),
  regrid: (pattern: Pattern, a: OnLanes & { grid: Grid }) =>
    each(pattern, a.laneIds, (now, laneId) => parts.regrid(now, laneId, a.grid)),
  copyBar: (pattern: Pattern, a: { from: number; to: number }) => copyBar(pattern, a.from, a.to),
  rotate: (pattern: Pattern, a: OnLanes & { by: number }) =>
    each(pattern, a.laneIds, (now, laneId) => parts.rotate(now, laneId, a.by)),
  shift: (pattern: Pattern, a: OnLanes & { by: number }) =>
    each(pattern, a.laneIds, (now, laneId) => parts.shift(now, laneId, a.by)),
  reverse: (pattern: Pattern, a: OnLanes) => each(pattern, a.laneIds, parts.reverse),
  mirror: (pattern: Pattern, a: OnLanes) => each(pattern, a.laneIds, parts.mirror),
  double: (pattern: Pattern, a: OnLanes) => each(pattern, a.laneIds, parts.double),
  halve: (pattern: Pattern, a: OnLanes) => each(pattern, a.laneIds, parts.halve),
  stretch: (pattern: Pattern, a: OnLanes & { factor: number }) =>
    each(pattern, a.laneIds, (now, laneId) => parts.stretch(now, laneId, a.factor)),
  thin: (pattern: Pattern, a: OnLanes) => each(pattern, a.laneIds, parts.thin),
  thicken: (pattern: Pattern, a: OnLanes) => each(pattern, a.laneIds, parts.thicken),
  clearLanes: (pattern: Pattern, a: OnLanes) => each(pattern, a.laneIds, parts.clearLane),
  randomize: (pattern: Pattern, a: OnLanes & { seed: number; id: string; keep: Held }) =>
    rolled(
      pattern,
      a.laneIds,
      (part, steps, laneId) => randomized(part, steps, laneId, a.seed, a.keep),
      'Rolled anew',
      { maker: 'randomize', settings: { ...a.keep } },
      a.seed,
      a.id,
    ),
  vary: (pattern: Pattern, a: OnLanes & { seed: number; id: string; share: number }) =>
    rolled(
      pattern,
      a.laneIds,
      (part, steps, laneId) => varied(part, steps, laneId, a.seed, a.share),
      `Varied by ${Math.round(a.share * 100)} %`,
      { maker: 'vary', settings: { share: a.share } },
      a.seed,
      a.id,
    ),
  recall: (pattern: Pattern, a: { takeId: string; id: string }) => recalled(pattern, a.takeId, a.id),
  changeTake: (pattern: Pattern, a: { takeId: string; change: Partial<Pick<Take, 'name' | 'kept'>> }) =>
    changeTake(pattern, a.takeId, a.change),
  dropTake: (pattern: Pattern, a: { takeId: string }) => dropTake(pattern, a.takeId),
  setPitches: (pattern: Pattern, a: { spots: Spot[]; to: number }) =>
    spots.setPitches(pattern, a.spots, a.to),
  shiftPitches: (pattern: Pattern, a: { spots: Spot[]; by: number }) =>
    spots.shiftPitches(pattern, a.spots, a.by),
  setHands: (pattern: Pattern, a: { spots: Spot[]; hand: Hand | null }) => setHands(pattern, a.spots, a.hand),
  stickBy: (pattern: Pattern, a: { spots: Spot[]; rule: HandRule }, beat: Beat) =>
    stickBy(beat, pattern, a.spots, a.rule),
  setEchoes: (pattern: Pattern, a: OnLanes & { echoes: Echoes | null }) =>
    moves.setEchoes(pattern, a.laneIds, a.echoes),
  setSparks: (pattern: Pattern, a: { laneId: string; sparks: Spark[] | null }) =>
    moves.setSparks(pattern, a.laneId, a.sparks),
  setDetour: (pattern: Pattern, a: { detour: Detour | null }) => moves.setDetour(pattern, a.detour),
  keepPasses: (pattern: Pattern, a: PassesPlayed & { how: string; id: string }, beat: Beat) =>
    keepPasses(pattern, playedPasses(beat, pattern, a.switched, a.from, a.to), a.how, a.id),
  writeMoves: (pattern: Pattern, a: { passes?: number | undefined }, beat: Beat) =>
    writeMoves(pattern, beat, a.passes),
  /** @param parts what each lane plays by it; @param how in words */
  make: (
    pattern: Pattern,
    a: {
      parts: Record<string, LanePattern>;
      how: string;
      made: NonNullable<Take['made']>;
      seed: number;
      id: string;
    },
    beat: Beat,
  ) =>
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
  rename: (pattern: Pattern, a: { name: string }) => ({ ...pattern, name: a.name.trim() || pattern.name }),
  recolour: (pattern: Pattern, a: { pigment: NonNullable<Pattern['pigment']> }) => ({
    ...pattern,
    pigment: a.pigment,
  }),
  setMeter: (pattern: Pattern, a: { meter: Meter }) => setMeter(pattern, a.meter),
  setBars: (pattern: Pattern, a: { bars: number }) => setBars(pattern, a.bars),
  repeatBars: (pattern: Pattern, _a: object) =>
    repeatBars(pattern, (laneId) => stepsOf(lanePatternOf(pattern, laneId), pattern)) ?? pattern,
  /** @param asWritten grid and length come with it too */
  lanePreset: (pattern: Pattern, a: { laneId: string; presetId: string; asWritten?: boolean }) => {
    const preset = LANE_PRESETS.find(({ id }) => id === a.presetId);
    return preset ? applyLanePreset(pattern, a.laneId, preset, a.asWritten) : pattern;
  },
};

const presetLanes = (beat: Beat, presetId: string): Beat => {
  const preset = PATTERN_PRESETS.find(({ id }) => id === presetId);
  if (!preset) return beat;
  return applyPatternPreset(beat, beat.patterns[0]!, preset).missing.reduce((now, id) => {
    let laneId: string = id;
    while (now.lanes.some((lane) => lane.id === laneId)) laneId += '+';
    return addLane(now, laneId, id);
  }, beat);
};

/** Edits of the beat as a whole. */
export const BEAT_EDITS = {
  /** @param lanes that are added for it @param meter that the pattern takes for it */
  makeBeat: (
    beat: Beat,
    a: {
      patternId: string;
      lanes: Lane[];
      meter?: Meter | undefined;
      parts: Record<string, LanePattern>;
      how: string;
      made: NonNullable<Take['made']>;
      seed: number;
      id: string;
    },
  ) => {
    const { patternId, lanes, meter, ...args } = a;
    const fresh = lanes.filter(({ id }) => beat.lanes.every((lane) => lane.id !== id));
    const roomy = { ...beat, lanes: [...beat.lanes, ...fresh].slice(0, MOST.lanes) };
    const metered = meter ? editPatterns(roomy, [patternId], { edit: 'setMeter', args: { meter } }) : roomy;
    return editPatterns(metered, [patternId], { edit: 'make', args });
  },
  setLevels: (beat: Beat, a: { levels: Partial<Levels> }) => ({
    ...beat,
    levels: { ...beat.levels, ...a.levels },
  }),
  addPattern: (beat: Beat, a: { id: string; like: Pattern }) => addPattern(beat, a.id, a.like),
  duplicatePattern: (beat: Beat, a: { id: string; from: string }) => duplicatePattern(beat, a.id, a.from),
  removePattern: (beat: Beat, a: { id: string }) => removePattern(beat, a.id),
  movePattern: (beat: Beat, a: { id: string; to: number }) => ({
    ...beat,
    patterns: movedTo(beat.patterns, a.id, a.to),
  }),
  /** Also adds the lanes that the preset needs and the beat does not have. */
  patternPreset: (beat: Beat, a: { patternId: string; presetId: string }) => {
    const preset = PATTERN_PRESETS.find(({ id }) => id === a.presetId);
    const pattern = beat.patterns.find(({ id }) => id === a.patternId);
    if (!preset || !pattern) return beat;
    const ready = presetLanes(beat, a.presetId);
    return setPattern(ready, applyPatternPreset(ready, pattern, preset).pattern);
  },
  addLane: (beat: Beat, a: { id: string; instrument: InstrumentId }) => addLane(beat, a.id, a.instrument),
  /** Copies a pattern of the beat under the name of its own. */
  copyPattern: (beat: Beat, a: { id: string; pattern: Pattern }) => copyPattern(beat, a.id, a.pattern),
  removeLane: (beat: Beat, a: { laneId: string }) => removeLane(beat, a.laneId),
  moveLane: (beat: Beat, a: { laneId: string; to: number }) => moveLane(beat, a.laneId, a.to),
  shiftNotes: (beat: Beat, a: { by: number }) => ({
    ...beat,
    lanes: beat.lanes.every(({ note }) => note + a.by >= 0 && note + a.by <= 127)
      ? beat.lanes.map((lane) => ({ ...lane, note: lane.note + a.by }))
      : beat.lanes,
  }),
  /** All or none: where one would leave 0 to 127, each keeps the note that it has. */
  numberLanes: (beat: Beat, a: { notes: Record<string, MidiNote> }) =>
    Object.values(a.notes).every((note) => Number.isInteger(note) && note >= 0 && note <= 127)
      ? { ...beat, lanes: beat.lanes.map((lane) => ({ ...lane, note: a.notes[lane.id] ?? lane.note })) }
      : beat,
  groupLanes: (beat: Beat, a: { id: string; name: string; laneIds: string[] }) =>
    groupLanes(beat, a.id, a.name, a.laneIds),
  ungroup: (beat: Beat, a: { groupId: string }) => ungroup(beat, a.groupId),
  setGroup: (beat: Beat, a: { groupId: string; change: Partial<Pick<Group, 'name' | 'folded'>> }) =>
    setGroup(beat, a.groupId, a.change),
  setGroupLanes: (beat: Beat, a: { groupId: string; change: Partial<Omit<Lane, 'id'>> }) =>
    setGroupLanes(beat, a.groupId, a.change),
  clearSilenced: (beat: Beat, _a: object) => ({
    ...beat,
    lanes: beat.lanes.map((lane) => (lane.mute || lane.solo ? { ...lane, mute: false, solo: false } : lane)),
  }),
  bringLanes: (
    beat: Beat,
    a: { patternId: string; from: Beat; laneIds: string[]; ids: Record<string, string> },
  ) => bringLanes(beat, a.patternId, a.from, a.laneIds, (laneId) => a.ids[laneId] ?? laneId),
  ownFeel: (beat: Beat, a: { patternId: string; own: boolean }) => ownFeel(beat, a.patternId, a.own),
  useFeel: (beat: Beat, a: { patternId: string; feel: Feel }) => useFeel(beat, a.patternId, a.feel),
  keepFeel: (beat: Beat, a: { id: string; name: string; patternId: string }) =>
    keepFeel(beat, a.id, a.name, a.patternId),
  changeKeptFeel: (beat: Beat, a: { id: string; change: Partial<Omit<NamedFeel, 'id'>> }) =>
    changeKeptFeel(beat, a.id, a.change),
  dropFeel: (beat: Beat, a: { id: string }) => dropFeel(beat, a.id),
  setBlend: (beat: Beat, a: { patternId: string; blend: Feel['blend'] | null }) =>
    setBlend(beat, a.patternId, a.blend),
  keepTemplate: (beat: Beat, a: { template: Template }) => keepTemplate(beat, a.template),
  dropTemplate: (beat: Beat, a: { id: string }) => dropTemplate(beat, a.id),
  bringGroove: (beat: Beat, a: { groove: Groove; bring: Bring }) => bringIn(beat, a.groove, a.bring).beat,
  useMap: (beat: Beat, a: { map: DrumMap; choice: MapChoice }) => writtenWith(beat, a.map, a.choice),
  keepRoute: (beat: Beat, a: NamedRoute) => moves.keepRoute(beat, a),
  dropRoute: (beat: Beat, a: { id: string }) => moves.dropRoute(beat, a.id),
  setKey: (beat: Beat, a: { id: string; key: PatternKey | null }) => setKey(beat, a.id, a.key),
  setVoice: (beat: Beat, a: { laneId: string; voice: Voice | null }) =>
    sounds.setVoice(beat, a.laneId, a.voice),
  setKitVoice: (beat: Beat, a: { instrument: InstrumentId; voice: Voice | null }) =>
    sounds.setKitVoice(beat, a.instrument, a.voice),
  setKit: (beat: Beat, a: { kit: string; own: OwnKit | null }) => sounds.setKit(beat, a.kit, a.own),
  nameKit: (beat: Beat, a: { name: string }) => sounds.nameKit(beat, a.name),
  setCeiling: (beat: Beat, a: { ceiling: number | null }) => sounds.setCeiling(beat, a.ceiling),
  addLoop: (
    beat: Beat,
    a: { id: string; name: string; loop: Loop; patternId: string; note?: number | undefined },
  ) => {
    const { note, ...rest } = a;
    return sounds.addLoop(beat, note === undefined ? rest : { ...rest, note });
  },
  setLoop: (beat: Beat, a: { laneId: string; loop: Loop; rewrite?: string | undefined }) =>
    sounds.setLoop(beat, a.laneId, a.loop, a.rewrite),
  loopToDrums: (
    beat: Beat,
    a: { loop: Loop; told: (sounds.Told | null)[]; patternId: string; ids: Record<string, string> },
  ) => sounds.loopToDrums(beat, a),
  passesToSong: (beat: Beat, a: PassesPlayed & { patternId: string; name: string; id: string }) => {
    const pattern = beat.patterns.find(({ id }) => id === a.patternId);
    const passes = pattern ? playedPasses(beat, pattern, a.switched, a.from, a.to) : [];
    return passesToSong(beat, a.patternId, passes, a.name, a.id);
  },
  toTray: (beat: Beat, a: TrayItem) => song.toTray(beat, a),
  grooveToTray: (beat: Beat, a: { groove: Groove; patternId: string; id: string }) =>
    song.grooveToTray(beat, a.groove, a.patternId, a.id),
  fromTray: (beat: Beat, a: { id: string }) => song.fromTray(beat, a.id),
  renameInTray: (beat: Beat, a: { id: string; name: string }) => song.renameInTray(beat, a.id, a.name),
  moveInTray: (beat: Beat, a: { id: string; to: number }) => song.moveInTray(beat, a.id, a.to),
  setSong: (beat: Beat, a: { song: Song }) => ({ ...beat, song: a.song }),
  addSection: (beat: Beat, a: { section: Section; placeId: string; at: number | null }) =>
    song.addSection(beat, a.section, a.placeId, a.at),
  changeSection: (beat: Beat, a: { id: string; change: SectionChange }) =>
    song.changeSection(beat, a.id, a.change),
  addEntry: (beat: Beat, a: { sectionId: string; entry: Entry }) => song.addEntry(beat, a.sectionId, a.entry),
  changeEntry: (
    beat: Beat,
    a: { sectionId: string; entryId: string; change: Parameters<typeof song.changeEntry>[3] },
  ) => song.changeEntry(beat, a.sectionId, a.entryId, a.change),
  removeEntry: (beat: Beat, a: { sectionId: string; entryId: string }) =>
    song.removeEntry(beat, a.sectionId, a.entryId),
  moveEntry: (beat: Beat, a: { sectionId: string; entryId: string; to: number }) =>
    song.moveEntry(beat, a.sectionId, a.entryId, a.to),
  takeFill: (beat: Beat, a: { sectionId: string; offer: FillOffer; patternId: string; over: Fill['over'] }) =>
    takeFill(beat, a.sectionId, a.offer, a.patternId, a.over),
  linkSection: (beat: Beat, a: { place: Place; at: number | null }) => song.linkSection(beat, a.place, a.at),
  duplicateSection: (beat: Beat, a: { placeId: string; sectionId: string; newPlaceId: string }) =>
    song.duplicateSection(beat, a.placeId, a.sectionId, a.newPlaceId),
  ownSection: (beat: Beat, a: { placeId: string; sectionId: string }) =>
    song.ownSection(beat, a.placeId, a.sectionId),
  movePlace: (beat: Beat, a: { placeId: string; to: number }) => song.movePlace(beat, a.placeId, a.to),
  repeatPlace: (beat: Beat, a: { placeId: string; times: number }) =>
    song.repeatPlace(beat, a.placeId, a.times),
  removePlace: (beat: Beat, a: { placeId: string }) => song.removePlace(beat, a.placeId),
  writeIn: (beat: Beat, a: { patternId: string; laneId: string | null; single: boolean }) =>
    commitFeel(beat, a.patternId, a.laneId, a.single),
};

export type PatternEdits = typeof PATTERN_EDITS;
export type BeatEdits = typeof BEAT_EDITS;
export type PatternEdit = {
  [K in keyof PatternEdits]: { edit: K; args: Parameters<PatternEdits[K]>[1] };
}[keyof PatternEdits];
export type BeatEdit = {
  [K in keyof BeatEdits]: { edit: K; args: Parameters<BeatEdits[K]>[1] };
}[keyof BeatEdits];

/** A take may know lanes that are gone, an edit may be meant for one: a beat holds no part without its lane. */
const onlyLanes = (pattern: Pattern, beat: Beat): Pattern => {
  const lanes = new Set(beat.lanes.map(({ id }) => id));
  const entries = Object.entries(pattern.parts);
  const known = entries.filter(([laneId]) => lanes.has(laneId));
  return known.length === entries.length ? pattern : { ...pattern, parts: Object.fromEntries(known) };
};

/** What was drawn around the hits that an edit is for. */
export interface Around extends Box {
  /** It reaches to the pattern's end, however long that is. */
  toEnd: boolean;
}

/** The hits that an edit is for in a pattern that is edited along: those within the box, wherever they stand in it. */
const inBox = (pattern: Pattern, args: object, around: Around | undefined): object => {
  if (!around || !('spots' in args)) return args;
  const to = around.toEnd ? Math.max(around.to, patternTicks(pattern)) : around.to;
  return { ...args, spots: spots.spotsWithin(pattern, around.laneIds, around.from, to) };
};

/**
 * Makes one edit in each of several patterns.
 *
 * @param patternIds the one that is shown first
 * @param around the box that the hits were chosen by: in the other patterns it holds other hits
 * @example
 * editPatterns(beat, ['a'], { edit: 'clearLanes', args: { laneIds: ['kick'] } }).patterns[0]!.parts['kick']!.hits
 * // []
 */
export const editPatterns = (
  beat: Beat,
  patternIds: string[],
  { edit, args }: PatternEdit,
  around?: Around,
): Beat => {
  const make = PATTERN_EDITS[edit] as (
    pattern: Pattern,
    args: unknown,
    beat: Beat,
    shown: boolean,
  ) => Pattern;
  const within = heldAll(PATTERN_LIST[edit].args as Record<string, Argument>, args);
  return patternIds.reduce((now, id, at) => {
    const pattern = now.patterns.find((one) => one.id === id);
    if (!pattern) return now;
    const out = make(pattern, at ? inBox(pattern, within, around) : within, now, at === 0);
    return out === pattern ? now : setPattern(now, onlyLanes(out, now));
  }, beat);
};

/**
 * Makes one edit of the beat.
 *
 * @example
 * editBeat(beat, { edit: 'removeLane', args: { laneId: 'kick' } }).lanes.length === beat.lanes.length - 1
 * // true
 */
export const editBeat = (beat: Beat, { edit, args }: BeatEdit): Beat =>
  (BEAT_EDITS[edit] as (beat: Beat, args: unknown) => Beat)(
    beat,
    heldAll(BEAT_LIST[edit].args as Record<string, Argument>, args),
  );
