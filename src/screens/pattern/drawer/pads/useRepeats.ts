import { useEffect, useEffectEvent, useRef, type RefObject } from 'react';
import { gridTicks } from '../../../../../core/document/grid';
import { ticksPerMs } from '../../../../../core/units';
import { heardAt, strikeLane } from '../../../../audio/player';
import { selectBeat, useAppStore } from '../../../../store/store';
import { takeAt, type Session } from './playIn';
import { createRepeats, type HeldNote, type Repeats } from './repeats';
import { type PlayInSettings } from '../../../../store/input';

/** So often it is looked what is held. */
const LOOK_MS = 8;
/** So long before its place a repeat is taken down, so that the pattern plays it on the spot. */
const TAKEN_AHEAD_MS = 80;

/** What is held repeats, taken down on its place of the grid where it records, and struck there by hand where it does not. */
export const useRepeats = (how: PlayInSettings, session: RefObject<Session>) => {
  const store = useAppStore();
  const asked = useEffectEvent(() => how);
  const taken = useEffectEvent(
    ({ laneId, pitch }: HeldNote, velocity: number, tick: number | null) =>
      void (tick !== null && how.recording
        ? takeAt(store, laneId, tick, velocity, pitch, session.current)
        : strikeLane(laneId, velocity, pitch)),
  );
  const repeats = useRef<Repeats | null>(null);
  const on = how.repeat !== null && !how.erasing;
  useEffect(() => {
    if (!on) return undefined;
    const own = createRepeats({
      now: () => performance.now(),
      tickAt: (time) => (store.getState().transport.playing ? (heardAt(time)?.tick ?? null) : null),
      every: () => {
        const ticks = gridTicks(asked().repeat!);
        return { ticks, ms: ticks / ticksPerMs(selectBeat(store.getState())!.tempo) };
      },
      ahead: () => (asked().recording ? TAKEN_AHEAD_MS : 0),
      strike: (note, velocity, tick) => taken(note, velocity, tick),
    });
    repeats.current = own;
    const timer = setInterval(own.look, LOOK_MS);
    return () => {
      repeats.current = null;
      clearInterval(timer);
    };
  }, [on, store]);
  return repeats;
};
