import { bounce, type BounceHow } from '../../core/export/bounce';
import type { ExportHow, ExportWhat } from '../../core/export/choice';
import { exported, pathOf } from '../../core/export/exporting';
import type { Beat } from '../../core/document/schema';
import type { LoadSample } from '../../core/samples/renderVoice';
import { createSounds, soundsOfBeat, type LoadOwn } from '../../core/samples/sounds';
import { ownSound } from './ownSounds';
import { words } from '../words/workers';

export interface BounceAsked {
  beat: Beat;
  how: ExportHow;
  what: ExportWhat;
}

/** What comes of a bounce, piece by piece. */
export type BounceGiven =
  | { type: 'progress'; done: number; name: string }
  | { type: 'file'; path: string; bytes: Uint8Array<ArrayBuffer> }
  | { type: 'done' }
  | { type: 'fault'; error: string };

const render = async (
  { beat, how, what }: BounceAsked,
  give: (given: BounceGiven) => void,
  load: LoadSample,
): Promise<void> => {
  const out = exported(beat, how, what);
  if (!out.ok) {
    give({ type: 'fault', error: out.error });
    return;
  }
  const { files, pieces, beat: written } = out.value;
  const own: LoadOwn = (sound, shape, rate) => ownSound(sound, shape, rate, load);
  const sounds = await soundsOfBeat(createSounds(how.rate, undefined, own), written);
  files.forEach((file, at) => {
    const steps = bounce(pieces[file.piece]!, written, how as BounceHow, sounds, file.voice!);
    for (;;) {
      const step = steps.next();
      if (step.done) {
        give({ type: 'file', path: pathOf(file), bytes: step.value as Uint8Array<ArrayBuffer> });
        return;
      }
      give({ type: 'progress', done: (at + step.value) / files.length, name: file.name });
    }
  });
  give({ type: 'done' });
};

/**
 * Renders audio, file by file. What goes wrong is given as a sentence: nothing is thrown.
 *
 * @param give is handed each file and how far it is; the last it hears is that all is done, or a fault

 * @param load where samples are had from
 */
export const bounceAll = (
  asked: BounceAsked,
  give: (given: BounceGiven) => void,
  load: LoadSample = () => Promise.resolve(null),
): Promise<void> =>
  render(asked, give, load).catch((fault: unknown) =>
    // Mostly there is no memory left for it.
    give({
      type: 'fault',
      error:
        fault instanceof RangeError
          ? words.theBrowserHasNoRoom
          : words.theSoundCouldNotBeRendered(fault instanceof Error ? fault.message : String(fault)),
    }),
  );
