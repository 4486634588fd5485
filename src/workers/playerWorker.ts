/** Feeds the mixer, away from the page: a shell around `player.ts`. */
import type { FromMixer, ToWorker } from '../audio/messages';
import { sayAlive } from './alive';
import { createPlayer } from './player';

const WAKE_MS = 500;

const player = createPlayer({
  toPage: (message) => postMessage(message),
  now: () => performance.now(),
  later: (work) => void setTimeout(work, 0),
});

onmessage = ({ data }: MessageEvent<ToWorker>) => {
  if (data.type !== 'connect') return player.fromPage(data);
  data.port.onmessage = (event: MessageEvent<FromMixer>) => player.fromMixer(event.data);
  player.connect(data.port, data.base, data.has);
};

setInterval(player.wake, WAKE_MS);
sayAlive();
