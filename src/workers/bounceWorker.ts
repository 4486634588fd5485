/** Renders audio away from the page, file by file. To be stopped, it is simply ended. */
import { bounce, type BounceHow } from '../../core/export/bounce';
import { createSounds, soundsOfBeat } from '../../core/sound/sounds';
import type { ExportHow, ExportWhat } from '../../core/export/choice';
import { exported, pathOf } from '../../core/export/exporting';
import type { Beat } from '../../core/document/schema';
import { words } from '../words/workers';

export interface BounceAsked {
  beat: Beat;
  how: ExportHow;
  what: ExportWhat;
}

export type BounceGiven =
  | { type: 'progress'; done: number; name: string }
  | { type: 'file'; path: string; bytes: Uint8Array<ArrayBuffer> }
  | { type: 'done' }
  | { type: 'fault'; error: string };

const give = (message: BounceGiven, transfer: Transferable[] = []): void =>
  (postMessage as (message: BounceGiven, transfer: Transferable[]) => void)(message, transfer);

const render = async ({ beat, how, what }: BounceAsked): Promise<void> => {
  const out = exported(beat, how, what);
  if (!out.ok) {
    give({ type: 'fault', error: out.error });
    return;
  }
  const { files, pieces, beat: written } = out.value;
  const sounds = await soundsOfBeat(createSounds(how.rate), written);
  files.forEach((file, at) => {
    const steps = bounce(pieces[file.piece]!, written, how as BounceHow, sounds, file.voice!);
    for (;;) {
      const step = steps.next();
      if (step.done) {
        const bytes = step.value as Uint8Array<ArrayBuffer>;
        give({ type: 'file', path: pathOf(file), bytes }, [bytes.buffer]);
        return;
      }
      give({ type: 'progress', done: (at + step.value) / files.length, name: file.name });
    }
  });
  give({ type: 'done' });
};

onmessage = ({ data }: MessageEvent<BounceAsked>) =>
  void render(data).catch((fault: unknown) =>
    // Mostly there is no memory left for it.
    give({
      type: 'fault',
      error:
        fault instanceof RangeError
          ? words.theBrowserHasNoRoom
          : words.theSoundCouldNotBeRendered(fault instanceof Error ? fault.message : String(fault)),
    }),
  );
