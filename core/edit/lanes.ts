import { freeId } from '../document/numbered';
import { MOST } from '../document/choices';
import { newLane } from '../document/defaults';
import type { InstrumentId } from '../document/instruments';
import type { Beat, Lane, LanePattern, Pattern } from '../document/schema';
import { clamp } from '../units';
import { movedTo } from './patterns';

/** Making, ordering and grouping lanes. */

/**
 * Adds a lane at the end. The id is given once and for good.
 *
 * @example addLane(beat, 'x', 'crash').lanes.at(-1)!.name // "Crash"
 */
export const addLane = (beat: Beat, id: string, instrumentId: InstrumentId): Beat =>
  beat.lanes.length >= MOST.lanes ? beat : { ...beat, lanes: [...beat.lanes, newLane(id, instrumentId)] };

const without = (parts: Record<string, LanePattern>, laneId: string): Record<string, LanePattern> => {
  const { [laneId]: _, ...rest } = parts;
  return rest;
};

const patternWithout = (pattern: Pattern, laneId: string): Pattern => ({
  ...pattern,
  parts: without(pattern.parts, laneId),
  ...(pattern.takes && {
    takes: pattern.takes.map((take) => ({ ...take, parts: without(take.parts, laneId) })),
  }),
});

/**
 * Takes a lane away with all its parts; the last lane stays.
 *
 * @example removeLane(beat, 'kick').patterns[0]!.parts['kick'] // undefined
 */
export const removeLane = (beat: Beat, laneId: string): Beat =>
  beat.lanes.length < 2
    ? beat
    : {
        ...beat,
        lanes: beat.lanes.filter(({ id }) => id !== laneId),
        patterns: beat.patterns.map((pattern) => patternWithout(pattern, laneId)),
      };

/**
 * Puts a lane at another place; one that is taken away from its group's others leaves the group.
 *
 * @example moveLane(beat, 'snare', 0).lanes[0]!.id // "snare"
 */
export const moveLane = (beat: Beat, laneId: string, to: number): Beat => {
  const lanes = movedTo(beat.lanes, laneId, to);
  const at = lanes.findIndex(({ id }) => id === laneId);
  const group = lanes[at]?.group;
  const others = lanes.some((lane) => lane.id !== laneId && lane.group === group);
  const beside = [lanes[at - 1], lanes[at + 1]].some((lane) => lane?.group === group);
  if (!group || !others || beside) return { ...beat, lanes };
  const { group: _, ...alone } = lanes[at]!;
  return { ...beat, lanes: lanes.map((lane) => (lane.id === laneId ? alone : lane)) };
};

/**
 * Puts lanes into a group of their own, next to one another; groups left empty go.
 *
 * @example groupLanes(beat, 'g', 'Low', ['kick', 'snare']).groups[0]!.name // "Low"
 */
export const groupLanes = (beat: Beat, id: string, name: string, laneIds: string[]): Beat => {
  const chosen = new Set(laneIds);
  const inside = beat.lanes.filter((lane) => chosen.has(lane.id)).map((lane) => ({ ...lane, group: id }));
  const first = beat.lanes.findIndex((lane) => chosen.has(lane.id));
  if (first < 0 || beat.groups.length >= MOST.groups) return beat;
  const rest = beat.lanes.filter((lane) => !chosen.has(lane.id));
  const at = beat.lanes.slice(0, first).filter((lane) => !chosen.has(lane.id)).length;
  const lanes = [...rest.slice(0, at), ...inside, ...rest.slice(at)];
  return tidied({ ...beat, lanes, groups: [...beat.groups, { id, name, folded: false }] });
};

const tidied = (beat: Beat): Beat => ({
  ...beat,
  groups: beat.groups.filter(({ id }) => beat.lanes.some((lane) => lane.group === id)),
});

/**
 * Dissolves a group; its lanes stay where they are.
 *
 * @example ungroup(groupLanes(beat, 'g', 'Low', ['kick', 'snare']), 'g').groups // []
 */
export const ungroup = (beat: Beat, groupId: string): Beat =>
  tidied({
    ...beat,
    lanes: beat.lanes.map((lane) => {
      if (lane.group !== groupId) return lane;
      const { group: _, ...rest } = lane;
      return rest;
    }),
  });

/**
 * Names a group, or folds it.
 *
 * @example
 * setGroup(groupLanes(beat, 'g', 'Low', ['kick', 'snare']), 'g', { folded: true }).groups[0]!.folded
 * // true
 */
export const setGroup = (beat: Beat, groupId: string, change: { name?: string; folded?: boolean }): Beat => ({
  ...beat,
  groups: beat.groups.map((group) => (group.id === groupId ? { ...group, ...change } : group)),
});

/**
 * Changes all lanes of a group together.
 *
 * @example
 * setGroupLanes(groupLanes(beat, 'g', 'Low', ['kick', 'snare']), 'g', { mute: true }).lanes.filter(({ mute }) => mute).length
 * // 2
 */
export const setGroupLanes = (beat: Beat, groupId: string, change: Partial<Omit<Lane, 'id'>>): Beat => ({
  ...beat,
  lanes: beat.lanes.map((lane) => (lane.group === groupId ? { ...lane, ...change } : lane)),
});

/** One lane of a beat as a beat of its own: all its patterns, nothing else in them. */
export const splitOff = (beat: Beat, laneId: string, id: string): Beat => {
  const lane = beat.lanes.find((one) => one.id === laneId)!;
  const { group: _, ...alone } = lane;
  return {
    ...beat,
    id,
    name: `${beat.name}, ${lane.name}`.slice(0, 80),
    lanes: [{ ...alone, mute: false, solo: false }],
    groups: [],
    patterns: beat.patterns.map(({ takes: _takes, take: _take, ...pattern }) => ({
      ...pattern,
      parts: pattern.parts[laneId] ? { [laneId]: pattern.parts[laneId] } : {},
    })),
  };
};

/** Brings lanes of another beat into a pattern: its first pattern's parts, under new ids. */
export const bringLanes = (
  beat: Beat,
  patternId: string,
  from: Beat,
  laneIds: string[],
  newId: (laneId: string) => string,
): Beat => {
  const room = MOST.lanes - beat.lanes.length;
  const lanes = from.lanes.filter(({ id }) => laneIds.includes(id)).slice(0, room);
  const source = from.patterns[0]!;
  const taken = beat.lanes.map(({ id }) => id);
  const ids = new Map(
    lanes.map(({ id }) => {
      const own = freeId(newId(id), taken);
      taken.push(own);
      return [id, own];
    }),
  );
  const parts = Object.fromEntries(
    lanes.flatMap((lane) => {
      const part = source.parts[lane.id];
      return part ? [[ids.get(lane.id)!, part]] : [];
    }),
  );
  return {
    ...beat,
    lanes: [
      ...beat.lanes,
      ...lanes.map(({ group: _, ...lane }) => ({ ...lane, id: ids.get(lane.id)!, solo: false })),
    ],
    patterns: beat.patterns.map((pattern) =>
      pattern.id === patternId ? { ...pattern, parts: { ...pattern.parts, ...parts } } : pattern,
    ),
  };
};

/** A note number held to what MIDI has. @example heldNote(200) // 127 */
export const heldNote = (note: number): number => Math.round(clamp(note, 0, 127));
