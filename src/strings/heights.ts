import type { MidiNote } from '../../core/units';
import type { RootState } from '../store/store';
import { beadTop, noteHeight, VELOCITY_POINTS, type NoteSpan } from './geometry';
import { type Heights } from '../store/focus';

/** How an open string whose height is pitch is read: its lane's own note, its ends, and the notes named beside it. */
export interface PitchScale extends NoteSpan {
  note: MidiNote;
  guides: MidiNote[];
}

/** How the open string of a lane is read; at most four notes are named, the ends and two between. */
export const pitchScale = ({ note, notes }: Heights): PitchScale => ({
  note,
  low: notes[0]!,
  high: notes.at(-1)!,
  guides: [...new Set([0, 1 / 3, 2 / 3, 1].map((at) => notes[Math.round(at * (notes.length - 1))]!))],
});

/** What the height of a lane's open string means, where it is pitch. */
export const heightsOf = ({ focus }: Pick<RootState, 'focus'>, laneId: string): Heights | null =>
  focus.heights?.laneId === laneId && focus.heights.notes.length ? focus.heights : null;

/** Where a bead of a pitch stands below the top of its open string, in points. */
export const pitchTop = (pitch: number, scale: NoteSpan & { note: MidiNote }): number =>
  beadTop(noteHeight(scale.note + pitch, scale), true);

/** The pitch of a lane's note that stands nearest to so many points below the top of its open string. */
export const pitchAt = (heights: Heights, down: number): number => {
  const { note, low, high } = pitchScale(heights);
  const height = (beadTop(0, true) - down) / VELOCITY_POINTS;
  const meant = low + ((high - low) * height) / 127;
  const nearest = heights.notes.reduce((best, one) =>
    Math.abs(one - meant) < Math.abs(best - meant) ? one : best,
  );
  return nearest - note;
};
