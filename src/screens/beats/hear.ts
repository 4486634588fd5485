import { useEffect } from 'react';
import type { Beat } from '../../../core/document/schema';
import { setPlayed, startPlaying, stopPlaying } from '../../audio/player';
import { store } from '../../keeping/session';
import { noticed, viewChanged } from '../../store/slices';
import { words } from '../../words/beats';

/** Stops the beat that is tried. */
export const stopBeat = (): void => {
  if (!store.getState().view.audition) return;
  stopPlaying();
  store.dispatch(viewChanged({ audition: null, playing: false }));
};

/** Plays a beat's first pattern without opening it; the open beat stays as it is. */
export const hearBeat = (beat: Beat): void => {
  const audition = { beat, patternId: beat.patterns[0]!.id };
  stopPlaying();
  store.dispatch(viewChanged({ audition, playing: true }));
  setPlayed(audition.beat, audition.patternId);
  startPlaying().catch(() => {
    store.dispatch(viewChanged({ audition: null, playing: false }));
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
