import type { Beat } from '../core/document/schema';
import lanternWalk from './beats/lantern-walk.ruddik.json';
import ferryAtSix from './beats/ferry-at-six.ruddik.json';
import rainOnTarps from './beats/rain-on-tarps.ruddik.json';
import stallNineteen from './beats/stall-nineteen.ruddik.json';
import lastFerryHome from './beats/last-ferry-home.ruddik.json';
import lowTideLogs from './beats/low-tide-logs.ruddik.json';

/** The beats of the first start. A test reads each of them as strictly as any file. */
export const DEMO_BEATS = [
  lanternWalk,
  rainOnTarps,
  ferryAtSix,
  stallNineteen,
  lastFerryHome,
  lowTideLogs,
] as Beat[];
