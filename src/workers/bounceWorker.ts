/** Renders audio beside the page: a shell around `bouncer.ts`. To be stopped, it is simply ended. */
import { expose, transfer } from 'comlink';
import { sayAlive } from './alive';
import { createIndexedBytes } from '../keeping/indexedBytes';
import { SAMPLES } from '../keeping/samples';
import { bounceAll, type BounceAsked, type BounceGiven } from './bouncer';
import { createSamples } from './ownSounds';

const load = createSamples(createIndexedBytes(SAMPLES));

sayAlive();
expose({
  bounceAll: (asked: BounceAsked, give: (given: BounceGiven) => void) =>
    bounceAll(
      asked,
      (given) => give(given.type === 'file' ? transfer(given, [given.bytes.buffer]) : given),
      load,
    ),
});
