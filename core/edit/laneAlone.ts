import type { Beat, Lane, Pattern } from '../document/schema';

/** A pattern with what one lane plays of it; what it had been sent to other lanes goes, since they are not there. */
const patternAlone = ({ takes: _t, take: _k, ...pattern }: Pattern, laneId: string): Pattern => {
  const part = pattern.parts[laneId];
  if (!part) return { ...pattern, parts: {} };
  const { sparks: _s, ...own } = part;
  return { ...pattern, parts: { [laneId]: own } };
};

/**
 * A beat of one lane alone, with its sound, its feel and what it plays in all patterns.
 *
 * @param id of the new beat
 * @example laneAlone(beat, 'kick', 'k').lanes.length // 1
 */
export const laneAlone = (beat: Beat, laneId: string, id: string): Beat => {
  const lane = beat.lanes.find((one) => one.id === laneId) ?? beat.lanes[0]!;
  const { group: _, ...own } = lane;
  const alone: Lane = { ...own, mute: false, solo: false };
  return {
    ...beat,
    id,
    name: `${beat.name}, ${lane.name}`.slice(0, 80),
    groups: [],
    lanes: [alone],
    patterns: beat.patterns.map((pattern) => patternAlone(pattern, lane.id)),
    tray: [],
    song: { sections: [], order: [] },
  };
};
