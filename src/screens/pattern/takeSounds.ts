import { RANGES } from '../../../core/document/ranges';
import type { Sample } from '../../../core/document/schema';
import { audioKind } from '../../../core/samples/audioKind';
import { wavOf } from '../../../core/files/wav';
import { noticed } from '../../store/slices';
import { store } from '../../keeping/session';
import { askDesk } from '../../workers/askOwn';
import type { SoundFile, SoundTakenIn } from '../../workers/soundDesk';
import { words } from '../../words/sounds';

/** What is asked for where audio is chosen. */
export const AUDIO_FILES = 'audio/*,.wav,.aif,.aiff,.flac,.mp3,.ogg';

const MOST_BYTES = 200 * 1024 * 1024;

/** Says something of a sound. */
export const tell = (text: string, danger = false): void =>
  void store.dispatch(noticed({ text, ...(danger && { tone: 'danger' as const }) }));

/** What is read by this browser alone becomes a WAV; null where it cannot read it either. */
const byTheBrowser = async ({ name, bytes }: SoundFile): Promise<SoundFile | null> => {
  try {
    const context = new OfflineAudioContext(1, 1, 48000);
    const audio = await context.decodeAudioData(bytes.slice().buffer);
    if (audio.duration > RANGES.inSound.most) return null;
    const channels = Array.from({ length: Math.min(2, audio.numberOfChannels) }, (_, side) =>
      audio.getChannelData(side),
    );
    return { name: `${name}.wav`, bytes: wavOf(channels, audio.sampleRate, 32) };
  } catch {
    return null;
  }
};

const readable = async (file: SoundFile): Promise<SoundFile> =>
  audioKind(file.bytes) ? file : ((await byTheBrowser(file)) ?? file);

/**
 * Takes in audio files: they are kept before anything refers to them. What could not be taken in is said.
 *
 * @returns the samples, in the order of the files
 */
export const takeSounds = async (files: readonly File[]): Promise<Sample[]> => {
  const read: SoundFile[] = [];
  for (const file of files) {
    if (file.size > MOST_BYTES) tell(words.tooLarge(file.name), true);
    else read.push(await readable({ name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) }));
  }
  if (!read.length) return [];
  const taken = await askDesk<SoundTakenIn>((far) => far.takeIn(read) as Promise<SoundTakenIn>);
  if (!taken) {
    tell(words.noAnswer, true);
    return [];
  }
  taken.said.forEach((text) => tell(text, true));
  return taken.samples;
};
