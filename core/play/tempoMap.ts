import { lastAt } from '../numbers';
import { QUARTER, type Bpm, type Seconds, type Ticks } from '../units';

/**
 * Which tempo holds from where. A file can say a tempo only in whole microseconds a quarter, so that is what a song is
 * played at too: what is heard then keeps to the file, however long the song is.
 */
export interface TempoMap {
  /** Where each tempo begins, the first at 0. */
  ticks: Ticks[];
  /** The time at which it begins. */
  seconds: Seconds[];
  /** Whole microseconds a quarter. */
  micros: number[];
}

/** A tempo as a file says it. @example microsOf(120) // 500000 */
export const microsOf = (bpm: Bpm): number => Math.round(60e6 / bpm);

const secondsIn = (ticks: Ticks, micros: number): Seconds => (ticks * micros) / (QUARTER * 1e6);

/**
 * @param steps in order, the first at 0; those that change nothing are left out
 * @example tempoMap([{ at: 0, bpm: 120 }, { at: 960, bpm: 60 }]).seconds // [0, 0.5]
 */
export const tempoMap = (steps: { at: Ticks; bpm: Bpm }[]): TempoMap => {
  const map: TempoMap = { ticks: [], seconds: [], micros: [] };
  for (const { at, bpm } of steps) {
    const micros = microsOf(bpm);
    const last = map.ticks.length - 1;
    if (last >= 0 && map.micros[last] === micros) continue;
    map.seconds.push(last < 0 ? 0 : map.seconds[last]! + secondsIn(at - map.ticks[last]!, map.micros[last]!));
    map.ticks.push(at);
    map.micros.push(micros);
  }
  return map;
};

/**
 * The time of a position; before 0 it is negative, at the first tempo.
 *
 * @example secondsAt(tempoMap([{ at: 0, bpm: 120 }]), 960) // 0.5
 */
export const secondsAt = ({ ticks, seconds, micros }: TempoMap, tick: Ticks): Seconds => {
  const at = lastAt(ticks, tick);
  return seconds[at]! + secondsIn(tick - ticks[at]!, micros[at]!);
};

/** The position at a time. @example tickAtSeconds(tempoMap([{ at: 0, bpm: 120 }]), 0.5) // 960 */
export const tickAtSeconds = ({ ticks, seconds, micros }: TempoMap, time: Seconds): Ticks => {
  const at = lastAt(seconds, time);
  return ticks[at]! + ((time - seconds[at]!) * QUARTER * 1e6) / micros[at]!;
};

/**
 * The tempo that holds at a position.
 *
 * @example tempoAt(tempoMap([{ at: 0, bpm: 120 }, { at: 960, bpm: 60 }]), 1000) // 60
 */
export const tempoAt = ({ ticks, micros }: TempoMap, tick: Ticks): Bpm => 60e6 / micros[lastAt(ticks, tick)]!;
