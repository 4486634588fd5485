import { useEffect, useSyncExternalStore } from 'react';
import { patternOf } from '../../core/document/defaults';
import type { HandLetters } from '../../core/play/handLetters';
import { selectAudible } from '../store/audible';
import { selectPattern, type Store, useAppStore } from '../store/store';

/** Which hand plays what, under the beads: found anew when the pattern is at rest, since hands go by all its lanes. */

const REST_MS = 120;
const NONE: HandLetters = new Map();

let shown: ReadonlyMap<string, HandLetters> = new Map();
const hearers = new Set<() => void>();

const same = (a: HandLetters, b: HandLetters): boolean =>
  a.size === b.size && [...a].every(([step, text]) => b.get(step) === text);

/** Lanes whose hands are as they were keep their map, so that they are not painted anew. */
const show = (next: ReadonlyMap<string, HandLetters>): void => {
  shown = new Map(
    [...next].map(([id, row]) => {
      const before = shown.get(id);
      return [id, before && same(before, row) ? before : row] as const;
    }),
  );
  for (const hear of hearers) hear();
};

const subscribe = (hear: () => void) => {
  hearers.add(hear);
  return () => void hearers.delete(hear);
};

/** The hands of a lane, by its steps; none while they are not shown. */
export const useHandLetters = (laneId: string): HandLetters =>
  useSyncExternalStore(
    subscribe,
    () => shown.get(laneId) ?? NONE,
    () => NONE,
  );

/** Keeps hands to what is there, while they are wanted. @returns what ends it */
export const followHands = (store: Store): (() => void) => {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let last: unknown[] = [];
  let ended = false;
  const find = async () => {
    const { handLetters } = await import('../../core/play/handLetters');
    const state = store.getState();
    const beat = selectAudible(state);
    const wanted = !ended && state.look.showHands && beat && selectPattern(state);
    show(wanted ? handLetters(beat, patternOf(beat, state.focus.patternId)) : new Map());
  };
  const follow = () => {
    const state = store.getState();
    const now = [state.look.showHands, selectAudible(state), state.focus.patternId];
    if (now.every((one, at) => one === last[at])) return;
    const turned = last[0] !== now[0];
    last = now;
    if (!now[0] && !shown.size) return;
    clearTimeout(timer);
    // What cannot be fetched now is asked for again with the next change.
    timer = setTimeout(() => void find().catch(() => (last = [])), turned ? 0 : REST_MS);
  };
  follow();
  const stop = store.subscribe(follow);
  return () => {
    ended = true;
    clearTimeout(timer);
    stop();
    if (shown.size) show(new Map());
  };
};

export const useHandsFollowed = (): void => {
  const store = useAppStore();
  useEffect(() => followHands(store), [store]);
};
