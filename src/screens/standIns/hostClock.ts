import type { MidiBytes } from '../../../core/ports/midiStream';
import type { Ms } from '../../../core/units';

/** What a host is set to. */
export interface HostSettings {
  bpm: number;
  /** Each tick comes up to so many ms too early or too late. */
  jitter: Ms;
  /** The bar that it begins at, from 1, in four quarters. */
  bar: number;
  /** It goes round over so many bars from there; 0 is never. */
  loop: number;
}

const CLOCKS_A_BAR = 96;
const CLOCKS_A_SIXTEENTH = 6;

interface HostParts {
  now: () => Ms;
  send: (bytes: MidiBytes, time: Ms) => void;
  /** From 0 up to 1. */
  random: () => number;
  settings: () => HostSettings;
  /** So many ticks have gone by since it began, counted from the first bar. */
  onPlace: (ticks: number) => void;
}

/** The clock of a host: each message leaves when it is due, by whatever the jitter makes of that. */
export const createHostClock = ({ now, send, random, settings, onPlace }: HostParts) => {
  let next: { due: Ms; tick: number } | null = null;
  /** Where it stands when it is stopped. */
  let rest = 0;

  const place = (tick: number, time: Ms) => {
    const sixteenths = Math.round(tick / CLOCKS_A_SIXTEENTH);
    send([0xf2, sixteenths & 127, (sixteenths >> 7) & 127], time);
  };
  const begin = (tick: number, kind: 0xfa | 0xfb) => {
    const time = now();
    if (kind === 0xfb || tick > 0) place(tick, time);
    send([tick > 0 ? 0xfb : kind], time);
    next = { due: time + 10, tick };
  };
  return {
    start: (): void => begin((settings().bar - 1) * CLOCKS_A_BAR, 0xfa),
    resume: (): void => begin(rest, 0xfb),
    stop: (): void => {
      rest = next?.tick ?? rest;
      next = null;
      send([0xfc], now());
    },
    runs: (): boolean => next !== null,
    /** To be called often: sends what is due. */
    work: (): void => {
      while (next && next.due <= now() + 2) {
        const { bpm, jitter, bar, loop } = settings();
        send([0xf8], next.due + jitter * (2 * random() - 1));
        onPlace(next.tick);
        let tick = next.tick + 1;
        const from = (bar - 1) * CLOCKS_A_BAR;
        if (loop && tick >= from + loop * CLOCKS_A_BAR) {
          tick = from;
          place(tick, next.due);
          send([0xfb], next.due);
        }
        next = { due: next.due + 60_000 / (24 * bpm), tick };
      }
    },
  };
};
