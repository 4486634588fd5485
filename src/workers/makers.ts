/** Workers are made here, by the address that the bundler knows them by. */
export const newImportWorker = (): Worker => new Worker(new URL('./importWorker', window.location.href));
export const newBounceWorker = (): Worker => new Worker(new URL('./bounceWorker', window.location.href));
