/** Renders audio beside the page: a shell around `bouncer.ts`. To be stopped, it is simply ended. */
import { expose, transfer } from 'comlink';
import { bounceAll, type BounceAsked, type BounceGiven } from './bouncer';

expose({
  bounceAll: (asked: BounceAsked, give: (given: BounceGiven) => void) =>
    bounceAll(asked, (given) => give(given.type === 'file' ? transfer(given, [given.bytes.buffer]) : given)),
});
