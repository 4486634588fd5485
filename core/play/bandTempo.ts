import { SIXTEENTH } from '../feel/bandAt';
import type { Bpm, Ms, Seconds, Ticks } from '../units';
import { secondsAt, tickAtSeconds, type TempoMap } from './tempoMap';

/** The tempo that follows a band: its mean drift, written as tempo from one sixteenth to the next. */

/** A timeline without end has a tempo of its own for so long; after it the last one stays, and the click keeps it. */
const MOST_SECONDS: Seconds = 20 * 60;

/** However far a band falls back or hurries from one sixteenth to the next, it is no slower and no faster than this. */
const [SLOWEST, FASTEST] = [4, 1 / 4];

/**
 * A tempo map in whole microseconds a quarter, as a file has it; what is lost by that in one sixteenth the next makes up for, so
 * that it never is farther off than half of one.
 *
 * @param tempos as they were set
 * @param mean how late the band is at a sixteenth, in ms
 * @param length Infinity has no end
 * @example followingTempos(tempoMap([{ at: 0, bpm: 120 }]), (j) => j, 480).micros // [504000]
 */
export const followingTempos = (tempos: TempoMap, mean: (j: number) => Ms, length: Ticks): TempoMap => {
  const out: TempoMap = { ticks: [], seconds: [], micros: [] };
  let now: Seconds = 0;
  for (let j = 0; j * SIXTEENTH < length; j++) {
    const begin = secondsAt(tempos, j * SIXTEENTH);
    if (length === Infinity && begin > MOST_SECONDS) break;
    const next = secondsAt(tempos, (j + 1) * SIXTEENTH);
    const plain = next - begin;
    const wanted = next + mean(j + 1) / 1000 - now;
    const held = Math.min(SLOWEST * plain, Math.max(FASTEST * plain, wanted));
    const micros = Math.round(held * 4e6);
    if (out.micros.at(-1) !== micros) {
      out.ticks.push(j * SIXTEENTH);
      out.seconds.push(now);
      out.micros.push(micros);
    }
    now += micros / 4e6;
  }
  return out.ticks.length ? out : tempos;
};

/** From a position and a time in ms after it to where that time is in the tempo that follows the band. */
export const throughTempo =
  (plain: TempoMap, tempos: TempoMap) =>
  (position: Ticks, late: Ms): Ticks =>
    tickAtSeconds(tempos, secondsAt(plain, position) + late / 1000);

/** The fastest that a tempo map has. @example fastestOf(tempoMap([{ at: 0, bpm: 120 }])) // 120 */
export const fastestOf = ({ micros }: TempoMap): Bpm =>
  micros.reduce((most, one) => Math.max(most, 60e6 / one), 0);
