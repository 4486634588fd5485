import { nanoid } from '@reduxjs/toolkit';
import { patternTicks } from '../../core/document/defaults';
import type { Switched } from '../../core/play/moves/detours';
import type { Ticks } from '../../core/units';
import { patternsEdited } from './doc';
import { routesKept, routesRecorded, routesRecording } from './transport';
import { selectPattern, type Store } from './store';
import { words } from '../words/make';

/** Where play stands is looked at so often. */
const LOOK_MS = 40;

/** Which passes were heard: those of which at least half was, and always one. */
const passesOf = (from: Ticks, to: Ticks, length: Ticks): [number, number] => {
  const first = Math.floor(from / length + 0.5);
  const end = Math.floor(to / length + 0.5);
  return end > first ? [first, end] : [Math.floor(from / length), Math.floor(from / length) + 1];
};

/**
 * Records which routes the pattern shown goes by while it plays. It ends by itself when play stops or another pattern or beat is
 * shown: what was played is kept as takes then.
 *
 * @param where where play stands, in ticks from where it began; null where it does not play
 * @param routes by which detours the player went from when on
 * @returns ends it
 */
export const recordRoutes = (
  store: Store,
  where: () => Ticks | null,
  routes: () => readonly Switched[],
): (() => void) => {
  const begun = selectPattern(store.getState());
  if (!begun) return () => undefined;
  const beatId = store.getState().doc.beat!.id;
  let [from, to]: [Ticks | null, Ticks] = [null, 0];
  let switched: readonly Switched[] = [];
  let ended = false;

  const end = () => {
    if (ended) return;
    ended = true;
    clearInterval(timer);
    unsubscribe();
    store.dispatch(routesRecorded());
    const { beat } = store.getState().doc;
    if (from === null || beat?.id !== beatId || !beat.patterns.some(({ id }) => id === begun.id)) return;
    const [first, after] = passesOf(from, to, patternTicks(begun));
    const played = { switched: switched.filter(({ at }) => at <= to), from: first, to: after };
    store.dispatch(routesKept({ patternId: begun.id, ...played }));
    store.dispatch(
      patternsEdited({
        patternIds: [begun.id],
        edit: { edit: 'keepPasses', args: { ...played, how: words.routesSwitched, id: nanoid() } },
      }),
    );
  };
  const look = () => {
    const state = store.getState();
    const now = selectPattern(state);
    if (state.doc.beat?.id !== beatId || now?.id !== begun.id) return end();
    const tick = state.transport.playing ? where() : null;
    if (tick === null) {
      if (from !== null && !state.transport.playing) end();
      return;
    }
    from ??= Math.max(0, tick);
    to = Math.max(to, tick);
    const done = routes();
    switched = done.length ? done : [{ at: 0, detour: begun.detour ?? null }];
  };
  const timer = setInterval(look, LOOK_MS);
  const unsubscribe = store.subscribe(look);
  store.dispatch(routesRecording());
  return end;
};
