/** Measures drums and works on sounds of one's own beside the page: a shell around `soundDesk.ts`. */
import { expose, transfer } from 'comlink';
import { sayAlive } from './alive';
import type { OwnLayers } from '../../core/samples/own';
import type { SoundShape } from '../../core/samples/shape';
import { createIndexedBytes } from '../keeping/indexedBytes';
import { SAMPLES } from '../keeping/samples';
import { drumPicture } from './drumPicture';
import { createDesk } from './soundDesk';

const desk = createDesk(createIndexedBytes(SAMPLES));

sayAlive();
expose({
  ...desk,
  drumPicture,
  ownSound: async (own: OwnLayers, shape: SoundShape, rate: number) => {
    const sound = await desk.ownSound(own, shape, rate);
    return sound && transfer(sound, [...new Set(sound.buffers.map(({ buffer }) => buffer))]);
  },
});
