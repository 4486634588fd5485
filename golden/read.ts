/**
 * Beats with all that can be done to a note, and every note that they play written down beside them as text. Whoever changes
 * what is played sees it as a difference of lines; whoever does not sees none.
 */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { readBeat } from '../core/document/file';
import { patternTicks } from '../core/document/defaults';
import type { Beat } from '../core/document/schema';
import { notesIn } from '../core/play/driver';
import type { Note } from '../core/play/notes';
import { planLive, planSong } from '../core/play/timelinePlan';

export const HERE = __dirname;

/** A pattern plays so often: what differs from pass to pass is seen. */
export const PASSES = 4;

/** The names of all beats, in order. */
export const names = (): string[] =>
  readdirSync(path.join(HERE, 'beats'))
    .map((file) => path.basename(file, '.json'))
    .sort();

/** A beat as it was written once: it has to be read as it is for good. */
export const golden = (name: string): Beat => {
  const read = readBeat(readFileSync(path.join(HERE, 'beats', `${name}.json`), 'utf8'));
  if (!read.ok) throw new Error(`${name}: ${read.error}`);
  return read.value;
};

/** What lies beside the beats under a name; '' where nothing does. */
export const written = (folder: 'notes' | 'midi', name: string): string => {
  const file = path.join(HERE, folder, `${name}.txt`);
  return existsSync(file) ? readFileSync(file, 'utf8') : '';
};

/** All notes of a beat: of its song where it has one, or of the passes of its pattern. */
export const played = (beat: Beat): Note[] => {
  if (beat.song.order.length) {
    const plan = planSong(beat);
    return notesIn(plan, 0, plan.timeline.length);
  }
  const [pattern] = beat.patterns;
  return notesIn(planLive(beat, pattern!), 0, PASSES * patternTicks(pattern!));
};

/** To the last bit: a number is written so that the same one is read again. */
export const notesText = (beat: Beat): string =>
  [
    'tick\tnote\tvelocity\tchannel\tlength\tturn\tlane',
    ...played(beat).map(({ tick, note, velocity, channel, length, turn, lane }) =>
      [tick, note, velocity, channel, length, turn, beat.lanes[lane]!.id].join('\t'),
    ),
    '',
  ].join('\n');
