/** Workers are made here, by the address that the bundler knows them by. */
import type { bounceAll } from './bouncer';
import { hire, type Hired } from './caller';
import type { Importer } from './importer';
import type { Painter } from './pictureWorker';

export const hireImporter = (): Hired<Importer> =>
  hire(() => new Worker(new URL('./importWorker', window.location.href)));

export const hireBouncer = (): Hired<{ bounceAll: typeof bounceAll }> =>
  hire(() => new Worker(require.unstable_resolveWorker('./bounceWorker')));

export const hirePainter = (): Hired<Painter> =>
  hire(() => new Worker(new URL('./pictureWorker', window.location.href)));
