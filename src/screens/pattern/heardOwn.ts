import type { Sample } from '../../../core/document/schema';
import { samplesIn } from '../../../core/samples/newVoice';
import type { OwnLayers } from '../../../core/samples/own';
import type { SoundShape } from '../../../core/samples/shape';
import type { Sound } from '../../../core/samples/voiceSound';
import { askDesk, askOwn } from '../../workers/askOwn';
import { words } from '../../words/sounds';
import { tell } from './takeSounds';

const samplesOf = (own: OwnLayers): Sample[] => ('loop' in own ? [own.loop.sample] : samplesIn(own.voice));

/** What has been said to be missing is not said again. */
const said = new Set<string>();

/** Says which samples of a sound are not in this browser. */
const tellMissing = async (own: OwnLayers): Promise<void> => {
  const samples = samplesOf(own).filter(({ id }) => !said.has(id));
  if (!samples.length) return;
  const ids = samples.map(({ id }) => id);
  const missing = (await askDesk<string[]>((far) => far.missing(ids) as Promise<string[]>)) ?? [];
  for (const { id, file } of samples)
    if (missing.includes(id) && !said.has(id)) {
      said.add(id);
      tell(words.isMissing(file), true);
    }
};

/** A sound of one's own to be heard; what of it is missing is said, and null where nothing is there. */
export const heardOwn = async (own: OwnLayers, shape: SoundShape, rate: number): Promise<Sound | null> => {
  const sound = await askOwn(own, shape, rate);
  const layers = 'loop' in own ? 1 : own.voice.layers.length;
  if (!sound || ('voice' in own && sound.plan.layers.length < layers)) await tellMissing(own);
  return sound;
};
