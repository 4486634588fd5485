import { allNotes } from '../play/driver';
import { planPasses } from '../play/timelinePlan';
import { inOrder, placed } from '../document/position';
import type { Beat, Pattern } from '../document/schema';
import { EMPTY_LANE_PATTERN, newHit } from '../document/defaults';
import { type Groove, type GrooveLane } from './groove';

/**
 * A pattern as it sounds on its first pass, as a groove: to be compared with others.
 *
 * @example patternGroove(beat, pattern).lanes.length // 2
 */
export const patternGroove = (beat: Beat, pattern: Pattern): Groove => {
  const played = allNotes(planPasses(beat, pattern, 1), 'wrap');
  const lanes = beat.lanes.flatMap((lane, at): GrooveLane[] => {
    const hits = played
      .filter((note) => note.lane === at)
      .map(({ tick, velocity }) => ({ ...newHit(0, velocity), ...placed(tick, '1/16') }));
    const { instrument, note, channel } = lane;
    return hits.length
      ? [{ instrument, note, channel, part: { ...EMPTY_LANE_PATTERN, hits: inOrder(hits) } }]
      : [];
  });
  const feel = pattern.feel ?? beat.feel;
  const percent = feel.base === 'swing' ? feel.swing.percent : 50;
  return {
    id: `pattern/${pattern.id}`,
    name: pattern.name,
    style: '',
    kind: 'main',
    source: 'built-in',
    path: [],
    meter: pattern.meter,
    bars: pattern.bars,
    bpm: beat.tempo,
    tempos: [beat.tempo, beat.tempo],
    feel: { kind: percent > 51 ? 'swung' : 'straight', percent },
    timekeeper: null,
    tags: [],
    lanes,
  };
};
