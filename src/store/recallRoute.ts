import { patternTicks } from '../../core/document/defaults';
import { barTicks } from '../../core/document/meter';
import type { Detour } from '../../core/document/movesSchema';
import { ticksPerMs, type Ms, type Ticks } from '../../core/units';
import { editShown } from './editing';
import { selectPattern, type Store } from './store';

/** In a song a change is handed to the sound so much ahead of when it is to be heard. */
const AHEAD_MS = 40;

/** Has the player turn to a detour at the next multiple of so many ticks; tells in how many ms it is heard, null where it does not. */
export type TurnRoute = (detour: Detour | null, every: Ticks) => Promise<Ms | null>;

let asked = 0;
let waiting: ReturnType<typeof setTimeout> | undefined;

/**
 * Has the pattern shown go by a route that was kept: at once; while it plays, from its next slot or bar on.
 *
 * @param number the first is 1; 0 is as written
 * @param played where play stands; null where it does not
 * @param turn asks the player
 * @returns whether there is such a route
 */
export const recallRoute = (
  store: Pick<Store, 'dispatch' | 'getState'>,
  number: number,
  played: Ticks | null,
  turn: TurnRoute,
): boolean => {
  const { doc, transport } = store.getState();
  const pattern = selectPattern(store.getState());
  const route = doc.beat?.routes?.[number - 1]?.route;
  if (!pattern || !doc.beat || (number > 0 && !route)) return false;
  const how: Omit<Detour, 'route'> = pattern.detour ?? { over: 'bar', chance: 1, lanes: null };
  const detour = number > 0 ? { ...how, route: route! } : null;
  const { id } = doc.beat;
  const go = () => {
    // Meant for this pattern: where another is shown by then it is not done.
    const now = store.getState();
    if (now.doc.beat?.id !== id || selectPattern(now)?.id !== pattern.id) return;
    editShown(store, { edit: 'setDetour', args: { detour } });
  };
  clearTimeout(waiting);
  if (!transport.playing || played === null || played < 0) go();
  else {
    const bar = barTicks(pattern.meter);
    const slots = detour ?? pattern.detour;
    const whole = slots?.over === 'all' ? patternTicks(pattern) : bar;
    const unit = transport.routesAt === 'bar' ? bar : whole / (slots?.route.length ?? 8);
    const wait = (ms: Ms) => {
      waiting = setTimeout(go, Math.max(0, ms));
    };
    const mine = ++asked;
    const { beat } = doc;
    if (transport.song.playing) wait((unit - (played % unit)) / ticksPerMs(beat.tempo) - AHEAD_MS);
    // The sound does it to the tick; the page shows it once it is heard.
    else void turn(detour, unit).then((ms) => mine === asked && (ms === null ? go() : wait(ms)));
  }
  return true;
};
