import { newBounceWorker } from '../../workers/makers';
import { useEffect, useRef, useState } from 'react';
import type { Beat } from '../../../core/document/schema';
import type { BounceAsked, BounceGiven } from '../../workers/bounceWorker';
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
  const worker = useRef<Worker | null>(null);
  const stop = () => {
    worker.current?.terminate();
    worker.current = null;
    setBouncing(IDLE);
  };
  // What was rendered of the beat before an edit is not what would be heard now.
  useEffect(
    () => () => {
      worker.current?.terminate();
      setBouncing(IDLE);
    },
    [beat],
  );
  const start = (asked: BounceAsked) => {
    worker.current?.terminate();
    const begun = performance.now();
    const files: BouncedFile[] = [];
    const one = newBounceWorker();
    worker.current = one;
    setBouncing({ state: 'running', done: 0, name: '' });
    one.onmessage = ({ data }: MessageEvent<BounceGiven>) => {
      if (data.type === 'progress') setBouncing({ state: 'running', done: data.done, name: data.name });
      if (data.type === 'file') files.push({ path: data.path, bytes: data.bytes });
      if (data.type === 'fault') setBouncing({ state: 'failed', error: data.error });
      if (data.type === 'done') {
        setBouncing({ state: 'ready', files, seconds: (performance.now() - begun) / 1000 });
        one.terminate();
      }
    };
    one.onerror = () =>
      setBouncing({
        state: 'failed',
        error: words.theBrowserStoppedTheRendering,
      });
    one.postMessage(asked);
  };
  return { bouncing, start, stop };
};
