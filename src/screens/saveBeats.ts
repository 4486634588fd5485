import { fileName, writeBeat, writeBeats } from '../../core/document/text';
import type { Beat } from '../../core/document/schema';
import { saveText } from '../ui/files';

/** What is saved is asked for its samples only where it may have some: what packs them is fetched then. */
const mayHaveSamples = (text: string): boolean => text.includes('"sample"');

const save = async (beats: Beat[], text: string, name: string): Promise<void> => {
  const packed =
    mayHaveSamples(text) &&
    (await import('./later')
      .then(({ saveWithSounds }) => saveWithSounds(beats, text, name))
      .catch(() => false));
  // Without its sounds rather than not at all.
  if (!packed) saveText(text, `${name}.ruddik.json`);
};

/** Saves a beat to a file named after it, with its sounds where it has its own. */
export const saveBeat = (beat: Beat): Promise<void> => save([beat], writeBeat(beat), fileName(beat.name));

/** Saves all beats to one file. @param day for its name */
export const saveAllBeats = (beats: Beat[], day: string): Promise<void> =>
  save(beats, writeBeats(beats), `all-beats-${day}`);
