import { useEffect } from 'react';
import type { Beat } from '../../../core/document/schema';
import { setPlayed, startPlaying, stopPlaying } from '../../audio/player';
import { store } from '../../keeping/session';
import { noticed } from '../../store/slices';
import { auditionBegan, auditionEnded } from '../../store/transport';
import { words } from '../../words/beats';

/** Stops the beat that is tried. */
export const stopBeat = (): void => {
  if (!store.getState().transport.audition) return;
  stopPlaying();
  store.dispatch(auditionEnded(false));
};

/** Plays a beat's first pattern without opening it; the open beat stays as it is. */
export const hearBeat = (beat: Beat): void => {
  const audition = { beat, patternId: beat.patterns[0]!.id };
  stopPlaying();
  store.dispatch(auditionBegan(audition));
  setPlayed(audition.beat, audition.patternId);
  startPlaying().catch(() => {
    store.dispatch(auditionEnded(false));
    store.dispatch(
      noticed({
        text: words.theBrowserGaveNoSound,
        tone: 'danger',
        subject: 'sound',
      }),
    );
  });
};

/** What is tried is heard for as long as its list is looked at. */
export const useStopped = (): void => {
  useEffect(() => stopBeat, []);
};
