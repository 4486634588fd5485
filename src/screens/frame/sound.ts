import { useEffect } from 'react';
import { barTicks } from '../../../core/beat/meter';
import { setMetronome, setPlayed, startPlaying, stopPlaying, switchPattern } from '../../audio/player';
import { selectHeard } from '../../state/heard';
import { selectPattern } from '../../state/store';
import { noticed, viewChanged } from '../../state/slices';
import { store } from '../../state/session';

/** The sound is made ready once the screen is there. */
const FIRST_MS = 600;
/** Long enough for a tap to be painted first, short enough for an edit to be heard at once. */
const HAND_OVER_MS = 8;
/** What follows the change before it as closely as this is a drag: it is heard first, since painting takes longer. */
const DRAG_MS = 150;

/** Hands every change of the open beat to the player. */
export const useSound = (): void => {
  useEffect(() => {
    let given: unknown[] = [];
    let timer: ReturnType<typeof setTimeout> | null = null;
    let last = 0;
    const give = () => {
      if (timer) clearTimeout(timer);
      timer = null;
      const { view } = store.getState();
      const beat = view.audition?.beat ?? selectHeard(store.getState());
      const patternId = view.audition?.patternId ?? view.patternId;
      const now = [beat, patternId];
      if (!beat || now.every((one, at) => one === given[at])) return;
      const turned = view.playing && given[0] !== undefined && given[1] !== patternId;
      given = now;
      last = performance.now();
      if (turned && !view.audition) switchPattern(beat, patternId, view.switchAt);
      else setPlayed(beat, patternId);
    };
    const later = () => {
      const { doc, view } = store.getState();
      const since = performance.now() - last;
      if (view.playing && doc.beat !== given[0] && since > HAND_OVER_MS && since < DRAG_MS) return give();
      timer ??= setTimeout(give, given.length ? HAND_OVER_MS : FIRST_MS);
    };
    later();
    return store.subscribe(later);
  }, []);
};

/** Tells the player of the click: on, but where it is wanted in recording alone. */
export const useClick = (): void => {
  useEffect(() => {
    let given = '';
    const tell = () => {
      const { metronome, playIn, playing } = store.getState().view;
      const { on, level, accent, onlyRecording } = metronome;
      const now = { on: on && (!onlyRecording || playIn.recording), level, accent };
      if (!playing || JSON.stringify(now) === given) return;
      given = JSON.stringify(now);
      setMetronome(now);
    };
    return store.subscribe(tell);
  }, []);
};

/** Plays, or stops at once. */
export const togglePlay = (): void => {
  const { view, doc } = store.getState();
  if (!doc.beat) return;
  const playing = !view.playing;
  store.dispatch(viewChanged({ playing, ...(!playing && { audition: null }) }));
  if (!playing) {
    stopPlaying();
    return;
  }
  const pattern = selectPattern(store.getState())!;
  startPlaying(view.countIn ? barTicks(pattern.meter) : 0).catch(() => {
    store.dispatch(viewChanged({ playing: false }));
    store.dispatch(
      noticed({
        text: 'The browser gave no sound output. Check that a device is connected, then play again.',
        tone: 'danger',
        subject: 'sound',
      }),
    );
  });
};
