import { barTicks } from '../../../../../core/document/meter';
import { clamp, TEMPO } from '../../../../../core/units';
import { playedTick } from '../../../../audio/player';
import { practiceSet } from '../../../../store/transport';
import { selectPattern, type Store } from '../../../../store/store';

/** Practising: the same over and over, a little faster every so many bars, with the beat's own tempo left alone. */
export interface PracticePlan {
  /** In BPM; `to` may be slower. */
  from: number;
  to: number;
  by: number;
  /** In bars. */
  every: number;
}

export const PRACTICE_DEFAULTS: PracticePlan = { from: 60, to: 120, by: 5, every: 4 };
const LOOK_MS = 80;

/**
 * The tempo after so many bars of practice.
 *
 * @example practiceTempo({ from: 60, to: 72, by: 5, every: 4 }, 9) // 70
 */
export const practiceTempo = ({ from, to, by, every }: PracticePlan, bars: number): number => {
  const steps = Math.floor(Math.max(0, bars) / Math.max(1, every));
  const way = Math.sign(to - from) * Math.abs(by) * steps;
  const reached = clamp(from + way, Math.min(from, to), Math.max(from, to));
  return clamp(reached, TEMPO.least, TEMPO.most);
};

let end: (() => void) | null = null;

export const endPractice = (): void => end?.();

/**
 * Begins to practise: from the slow tempo whenever play begins anew.
 *
 * @param played where play stands, in ticks from where it began; null while nothing plays
 */
export const practise = (
  store: Store,
  plan: PracticePlan,
  played: () => number | null = playedTick,
): void => {
  endPractice();
  const beatId = store.getState().doc.beat?.id;
  const set = (tempo: number) => {
    if (store.getState().transport.practice !== tempo) store.dispatch(practiceSet(tempo));
  };
  const look = () => {
    const { doc, transport } = store.getState();
    if (doc.beat?.id !== beatId || transport.practice === null) return end?.();
    const tick = transport.playing ? played() : null;
    const pattern = selectPattern(store.getState());
    set(practiceTempo(plan, tick === null || !pattern ? 0 : (tick + 1e-6) / barTicks(pattern.meter)));
  };
  set(practiceTempo(plan, 0));
  const timer = setInterval(look, LOOK_MS);
  end = () => {
    clearInterval(timer);
    end = null;
    if (store.getState().transport.practice !== null) store.dispatch(practiceSet(null));
  };
};
