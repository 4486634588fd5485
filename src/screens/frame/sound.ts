import { useEffect } from 'react';
import { barTicks } from '../../../core/document/meter';
import type { Beat } from '../../../core/document/schema';
import type { Ms } from '../../../core/units';
import {
  hearTrouble,
  playedSongTick,
  setMetronome,
  setPlayed,
  setSongPlayed,
  startPlaying,
  stopPlaying,
  switchPattern,
} from '../../audio/player';
import { selectAudible } from '../../store/audible';
import { offer } from '../../store/offers';
import { songClock } from '../../store/songClock';
import { selectPattern, useApp } from '../../store/store';
import { noticed } from '../../store/slices';
import { playBegan, playEnded } from '../../store/transport';
import { store } from '../../keeping/session';
import { words } from '../../words/frame';

/** The sound is made ready once the screen is there. */
const FIRST_MS = 600;
/** Long enough for a tap to be painted first, short enough for an edit to be heard at once. */
const HAND_OVER_MS = 8;
/** What follows the change before it as closely as this is a drag: it is heard first, since painting takes longer. */
const DRAG_MS = 150;

/** What the player was last given, and when. */
let given: unknown[] = [];
let last = 0;

/** Gives the player what is to be heard now, where that is something else than before. */
const handOver = (): void => {
  const { transport, focus } = store.getState();
  const song = transport.song.playing && !transport.audition ? transport.song : null;
  const beat = transport.audition?.beat ?? song?.tried ?? selectAudible(store.getState());
  const patternId = transport.audition?.patternId ?? focus.patternId;
  const now = [beat, patternId, song?.from, song?.loop];
  if (!beat || now.every((one, at) => one === given[at])) return;
  const turned = transport.playing && given[0] !== undefined && given[1] !== patternId;
  given = now;
  last = performance.now();
  if (song) setSongPlayed(beat, patternId, { from: song.from, loop: song.loop });
  else if (turned && !transport.audition)
    switchPattern(beat, patternId, transport.beginsAt ?? transport.switchAt);
  else setPlayed(beat, patternId);
};

/** Hands every change of the open beat to the player. */
export const useSound = (): void => {
  useEffect(() => {
    given = [];
    last = 0;
    let timer: ReturnType<typeof setTimeout> | null = null;
    const give = () => {
      if (timer) clearTimeout(timer);
      timer = null;
      handOver();
    };
    const later = () => {
      const { doc, transport } = store.getState();
      const since = performance.now() - last;
      if (transport.playing && doc.beat !== given[0] && since > HAND_OVER_MS && since < DRAG_MS)
        return give();
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
      const { metronome, playing } = store.getState().transport;
      const { playIn } = store.getState().input;
      const { on, level, accent, onlyRecording } = metronome;
      const now = { on: on && (!onlyRecording || playIn.recording), level, accent };
      if (!playing || JSON.stringify(now) === given) return;
      given = JSON.stringify(now);
      setMetronome(now);
    };
    return store.subscribe(tell);
  }, []);
};

/** What is last heard of a song rings out before play stops by itself. */
const RING_MS = 900;
const LOOK_MS = 120;

/** Stops at the end of the song. */
export const useSongEnd = (): void => {
  const playing = useApp(({ transport }) => transport.playing && transport.song.playing);
  useEffect(() => {
    if (!playing) return;
    let ended = 0;
    const timer = setInterval(() => {
      const tick = playedSongTick();
      const length = songClock()?.length ?? Infinity;
      if (tick === null || tick < length || store.getState().transport.song.loop) ended = 0;
      else if (!ended) ended = performance.now();
      else if (performance.now() - ended > RING_MS) togglePlay();
    }, LOOK_MS);
    return () => clearInterval(timer);
  }, [playing]);
};

/** Where a part of the sound is gone for good, play ends with a word and a way to begin again. */
export const useTrouble = (): void => {
  useEffect(
    () =>
      hearTrouble((trouble) => {
        const { transport } = store.getState();
        if (!transport.playing) return;
        store.dispatch(playEnded());
        store.dispatch(
          noticed({
            text: trouble === 'code' ? words.theSoundCouldNotBeFetched : words.theSoundStopped,
            tone: 'danger',
            lasting: true,
            subject: 'sound',
            action: {
              label: words.playAgain,
              does: offer(() => store.getState().transport.playing || togglePlay()),
            },
          }),
        );
      }),
    [],
  );
};

const hasSong = ({ song }: Beat): boolean => song.order.length > 0;

/** Plays, or stops at once: the song where its screen is open, else the pattern. */
export const togglePlay = (): void => toggle();

/**
 * The same where another clock leads.
 *
 * @param at when what begins is due, in ms of the page's clock: nothing is counted in
 */
export const togglePlayLed = (at?: Ms): void => toggle(at);

const toggle = (at?: Ms): void => {
  const { transport, doc } = store.getState();
  if (!doc.beat) return;
  const playing = !transport.playing;
  if (!playing) {
    store.dispatch(playEnded());
    stopPlaying();
    return;
  }
  const song = transport.song.shown && hasSong(transport.song.tried ?? doc.beat) && !transport.audition;
  store.dispatch(playBegan(song));
  // What begins is given at once; and it is known to be given, so that what plays after it is given too.
  if (song) handOver();
  const pattern = selectPattern(store.getState())!;
  startPlaying(transport.countIn && at === undefined ? barTicks(pattern.meter) : 0, at).catch(() => {
    store.dispatch(playEnded());
    store.dispatch(
      noticed({
        text: words.theBrowserGaveNoSound,
        tone: 'danger',
        subject: 'sound',
      }),
    );
  });
};
