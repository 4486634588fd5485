import { nanoid } from '@reduxjs/toolkit';
import { MOST, SONG } from '../../../core/document/choices';
import type { Groove, GrooveRow } from '../../../core/groove/groove';
import { beatEdited } from '../../store/doc';
import { store } from '../../keeping/session';
import { noticed } from '../../store/slices';
import { shelf } from './shelf';
import { words } from '../../words/grooves';

/** Sets a groove aside for the song, as a pattern of the beat. */
export const grooveAside = (groove: Groove): void => {
  const { beat } = store.getState().doc;
  if (!beat) return;
  const full = beat.patterns.length >= MOST.patterns || beat.tray.length >= SONG.tray;
  if (!full)
    store.dispatch(
      beatEdited({ edit: { edit: 'grooveToTray', args: { groove, patternId: nanoid(), id: nanoid() } } }),
    );
  store.dispatch(
    noticed({
      text: full ? words.grooveWasNotSetAside(groove.name) : words.grooveIsInTheTray(groove.name),
      subject: 'tray',
      ...(full
        ? { tone: 'danger' as const }
        : { action: { label: words.undo, does: { kind: 'undo' as const, at: beatsBefore() } } }),
    }),
  );
};

const beatsBefore = (): number => store.getState().doc.past.length;

/** The same of a line of the list, once its groove is there. */
export const rowAside = async ({ id }: GrooveRow): Promise<void> => {
  const groove = await shelf.groove(id);
  if (groove) grooveAside(groove);
};
