import { proxy } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { Beat } from '../../../core/document/schema';
import type { BounceAsked, BounceGiven } from '../../workers/bouncer';
import { WorkerGone } from '../../workers/caller';
import { hireBouncer } from '../../workers/makers';
import { words } from '../../words/export';

export interface BouncedFile {
  path: string;
  bytes: Uint8Array<ArrayBuffer>;
}

export type Bouncing =
  | { state: 'idle' }
  | { state: 'running'; done: number; name: string }
  | { state: 'ready'; files: BouncedFile[]; seconds: number }
  | { state: 'failed'; error: string };

const IDLE: Bouncing = { state: 'idle' };

/** Renders audio in a worker, with progress; what is asked for anew, or stopped, ends it. */
export const useBounce = (
  beat: Beat,
): {
  bouncing: Bouncing;
  start: (asked: BounceAsked) => void;
  stop: () => void;
} => {
  const [bouncing, setBouncing] = useState<Bouncing>(IDLE);
  const bouncer = useRef<ReturnType<typeof hireBouncer> | null>(null);
  const stop = () => {
    bouncer.current?.end();
    bouncer.current = null;
    setBouncing(IDLE);
  };
  // What was rendered of the beat before an edit is not what would be heard now.
  useEffect(
    () => () => {
      bouncer.current?.end();
      setBouncing(IDLE);
    },
    [beat],
  );
  const start = (asked: BounceAsked) => {
    bouncer.current?.end();
    const begun = performance.now();
    const run = (isAgain: boolean) => {
      const files: BouncedFile[] = [];
      const one = hireBouncer();
      bouncer.current = one;
      setBouncing({ state: 'running', done: 0, name: '' });
      const give = (given: BounceGiven) => {
        if (given.type === 'progress') setBouncing({ state: 'running', done: given.done, name: given.name });
        if (given.type === 'file') files.push({ path: given.path, bytes: given.bytes });
        if (given.type === 'fault') setBouncing({ state: 'failed', error: given.error });
        if (given.type === 'done') {
          setBouncing({ state: 'ready', files, seconds: (performance.now() - begun) / 1000 });
          one.end();
        }
      };
      void Promise.race([one.far.bounceAll(asked, proxy(give)), one.failed]).catch((fault: unknown) => {
        if (bouncer.current !== one) return;
        // Once it may be chance; where it is gone again it is mostly for want of memory.
        if (!isAgain && fault instanceof WorkerGone) run(true);
        else setBouncing({ state: 'failed', error: words.theBrowserStoppedTheRendering });
      });
    };
    run(false);
  };
  return { bouncing, start, stop };
};
