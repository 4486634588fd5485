import { useEffect } from 'react';
import { fitGroove, type Fit } from '../../../core/groove/fit';
import { grooveTicks, type Groove } from '../../../core/groove/groove';
import { besideBeat, grooveToBeat } from '../../../core/groove/grooveToBeat';
import { revoiced } from '../../../core/groove/revoice';
import { PLAIN_VOICING, type Voicing } from '../../../core/groove/voicing';
import { INSTRUMENT_IDS } from '../../../core/document/instruments';
import {
  playedPattern,
  playedTick,
  prepareSounds,
  setPlayed,
  startPlaying,
  stopPlaying,
} from '../../audio/player';
import { store } from '../../keeping/session';
import { noticed } from '../../store/slices';
import { auditionBegan, auditionEnded, auditionTurned } from '../../store/transport';
import { selectPattern, useApp } from '../../store/store';
import { heardChanged, PLAIN_FIT, type Heard } from '../../store/hearing';
import { shelf } from './shelf';
import { words } from '../../words/grooves';

const now = (): Heard => store.getState().hearing;
const set = (change: Partial<Heard>) => void store.dispatch(heardChanged(change));

/** What follows when a groove has ended and the next is wanted; given by the list. */
let goOn: (() => void) | null = null;
export const onEnd = (next: (() => void) | null): void => {
  goOn = next;
};

/** The groove as it is to be played: at its speed and length, with its voices. */
export const shaped = ({ groove, fit, voicing }: Pick<Heard, 'groove' | 'fit' | 'voicing'>): Groove | null =>
  groove && fitGroove(revoiced(groove, voicing), fit);

const tempoFor = (groove: Groove): number => {
  const { grooves, doc } = store.getState();
  if (grooves.tempo === 'hand') return grooves.hand;
  return grooves.tempo === 'beat' ? (doc.beat?.tempo ?? groove.bpm) : groove.bpm;
};

/** The beat that is handed to the player, or null where there is nothing to hear. */
const auditionOf = (groove: Groove) => {
  const state = store.getState();
  const { beat } = state.doc;
  const pattern = selectPattern(state);
  if (!beat || !pattern) return null;
  const { inTime, silenced, kit, after } = state.grooves;
  if (inTime) {
    const silent = beat.lanes.filter(({ name }) => silenced.includes(name)).map(({ id }) => id);
    return { beat: besideBeat(beat, pattern, groove, silent), patternId: pattern.id };
  }
  const played = grooveToBeat(groove, beat, {
    tempo: tempoFor(groove),
    kit: kit === 'beat' ? beat.kit : kit,
    once: after !== 'repeat',
  });
  return { beat: played, patternId: played.patterns[0]!.id };
};

/** What a change of the groove, the beat or the choices makes of what is heard, without beginning anew. */
export const refresh = (): void => {
  const groove = shaped(now());
  if (!groove || !now().sounding) return;
  const audition = auditionOf(groove);
  if (audition) store.dispatch(auditionTurned(audition));
};

/** Stops what is tried. A beat that ran before it in time runs on. */
export const stopHearing = (): void => {
  const { transport, grooves } = store.getState();
  const { audition } = transport;
  set({ sounding: false });
  if (!audition) return;
  const goesOn = grooves.inTime && transport.playing;
  if (!goesOn) stopPlaying();
  store.dispatch(auditionEnded(goesOn));
};

const begin = (audition: NonNullable<ReturnType<typeof auditionOf>>): void => {
  stopPlaying();
  store.dispatch(auditionBegan(audition));
  setPlayed(audition.beat, audition.patternId);
  startPlaying().catch(() => {
    set({ sounding: false });
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

/** Plays the groove from its start; along with the beat that runs it joins at the right place in the bar. */
export const play = (): void => {
  const groove = shaped(now());
  const audition = groove && auditionOf(groove);
  if (!audition) return;
  const { transport, grooves } = store.getState();
  const joins =
    grooves.inTime &&
    transport.playing &&
    (!transport.audition || transport.audition.patternId === audition.patternId);
  if (joins) store.dispatch(auditionTurned(audition));
  else begin(audition);
  set({ sounding: true });
};

let asked = '';

/** Chooses a groove, reads it where it lies, and plays it if that is wanted. */
export const choose = async (id: string, sound: boolean): Promise<void> => {
  asked = id;
  if (now().groove?.id !== id) set({ loading: id });
  const groove = await shelf.groove(id);
  if (asked !== id) return;
  set({ loading: null });
  if (!groove) {
    store.dispatch(
      noticed({
        text: words.thisGrooveIsOutOf,
        tone: 'danger',
        subject: 'groove',
      }),
    );
    return;
  }
  set({ groove, ...(now().groove?.id !== id && { fit: PLAIN_FIT, voicing: PLAIN_VOICING }) });
  if (sound) play();
};

export const setFit = (fit: Partial<Fit>): void => {
  set({ fit: { ...now().fit, ...fit } });
  refresh();
};

export const setVoicing = (voicing: Partial<Voicing>): void => {
  set({ voicing: { ...now().voicing, ...voicing } });
  refresh();
};

/** The groove was read anew: with another map, say. */
export const rereadHeard = async (): Promise<void> => {
  const { groove } = now();
  if (groove) set({ groove: (await shelf.groove(groove.id)) ?? groove });
  refresh();
};

/** How far the groove that sounds is, 0 to 1 of its length and in ticks; null before it sounds. */
export const progress = (): { share: number; tick: number } | null => {
  const groove = shaped(now());
  const { audition } = store.getState().transport;
  if (!now().sounding || !groove || !audition || playedPattern() !== audition.patternId) return null;
  const tick = playedTick();
  if (tick === null || tick < 0) return null;
  const length = grooveTicks(groove);
  const { after, inTime } = store.getState().grooves;
  const inside = after === 'repeat' || inTime ? tick % length : tick;
  return { share: Math.min(1, inside / length), tick: inside };
};

/** At the end of a groove that is not repeated: it stops, or the next one begins. */
const watchEnd = (): void => {
  const at = progress();
  const { after, inTime } = store.getState().grooves;
  if (!at || at.share < 1 || after === 'repeat' || inTime) return;
  if (after === 'next' && goOn) goOn();
  else stopHearing();
};

export const useHeard = (): Heard => useApp(({ hearing }) => hearing);

/** Keeps what is heard in step with the beat and the choices, as long as the grooves are looked at. */
export const useAudition = (): void => {
  useEffect(() => {
    const kit = store.getState().doc.beat?.kit;
    if (kit) prepareSounds({ kit }, INSTRUMENT_IDS);
    let before = store.getState();
    const stop = store.subscribe(() => {
      const state = store.getState();
      const { grooves: g, doc, transport, focus, hearing: heard } = state;
      const was = before;
      before = state;
      if (!transport.playing && heard.sounding) return set({ sounding: false });
      if (!heard.sounding) return;
      if (g.inTime !== was.grooves.inTime) return play();
      const changed =
        doc.beat !== was.doc.beat ||
        focus.patternId !== was.focus.patternId ||
        (['tempo', 'hand', 'kit', 'silenced', 'after'] as const).some((key) => g[key] !== was.grooves[key]);
      if (changed) refresh();
    });
    return () => {
      stop();
      stopHearing();
    };
  }, []);
  const { sounding } = useHeard();
  useEffect(() => {
    if (!sounding) return;
    const timer = setInterval(watchEnd, 20);
    return () => clearInterval(timer);
  }, [sounding]);
};
