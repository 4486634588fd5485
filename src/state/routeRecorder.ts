import { nanoid } from '@reduxjs/toolkit';
import { patternTicks } from '../../core/document/defaults';
import { barTicks } from '../../core/document/meter';
import type { Pattern } from '../../core/document/schema';
import type { Switched } from '../../core/edit/playedRoutes';
import type { Ticks } from '../../core/units';
import { patternsEdited } from './doc';
import { viewChanged } from './slices';
import { selectPattern, type Store } from './store';
import { words } from '../words/make';

/** Where play stands is looked at so often. */
const LOOK_MS = 40;

/** How long a slot is that a pattern's detour divides it into, or would. */
const slotOf = (pattern: Pattern): Ticks => {
  const { detour } = pattern;
  const whole = detour?.over === 'all' ? patternTicks(pattern) : barTicks(pattern.meter);
  return whole / (detour?.route.length ?? 8);
};

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
 * @returns ends it
 */
export const recordRoutes = (store: Store, where: () => Ticks | null): (() => void) => {
  const begun = selectPattern(store.getState());
  if (!begun) return () => undefined;
  const beatId = store.getState().doc.beat!.id;
  const switched: Switched[] = [{ at: 0, detour: begun.detour ?? null }];
  let pattern = begun;
  let [from, to]: [Ticks | null, Ticks] = [null, 0];
  let ended = false;

  const end = () => {
    if (ended) return;
    ended = true;
    clearInterval(timer);
    unsubscribe();
    store.dispatch(viewChanged({ recordingRoutes: false }));
    const { beat } = store.getState().doc;
    if (from === null || beat?.id !== beatId || !beat.patterns.some(({ id }) => id === begun.id)) return;
    const [first, after] = passesOf(from, to, patternTicks(pattern));
    const played = { switched, from: first, to: after };
    store.dispatch(viewChanged({ routesPlayed: { patternId: begun.id, ...played } }));
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
    const tick = state.view.playing ? where() : null;
    if (tick === null) {
      if (from !== null && !state.view.playing) end();
      else pattern = now;
      return;
    }
    from ??= Math.max(0, tick);
    to = Math.max(to, tick);
    if (now.detour !== pattern.detour) {
      const slot = slotOf(now.detour ? now : pattern);
      switched.push({ at: Math.max(0, Math.round(tick / slot) * slot), detour: now.detour ?? null });
    }
    pattern = now;
  };
  const timer = setInterval(look, LOOK_MS);
  const unsubscribe = store.subscribe(look);
  store.dispatch(viewChanged({ recordingRoutes: true, routesPlayed: null }));
  return end;
};
