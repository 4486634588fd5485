import { useEffect } from 'react';
import { listed } from '../../core/document/text';
import { store } from '../keeping/session';
import { noticed } from '../store/slices';
import { words } from '../words/web';

/** So many names are said; of more, their number. */
const MOST_NAMED = 3;

/** Where files of this kind are taken. @example whereFor('rain.mid') // "on Grooves or Beats" */
const whereFor = (name: string): string => {
  if (/\.zip$/i.test(name)) return words.zipArchivesOfMidiFiles;
  if (/\.midi?$/i.test(name)) return words.midiFilesOnGroovesAs;
  if (/\.json$/i.test(name)) return words.beatsOnBeatsTemplatesFeels;
  return words.beatsAndMidiFilesNothing;
};

const told = (files: File[]): string => {
  const names = files.map(({ name }) => `“${name}”`);
  const which =
    names.length > MOST_NAMED
      ? words.manyFilesAre(names.length)
      : words.namedAre(listed(names), names.length);
  return words.notTakenHereDrop(which, [...new Set(files.map(({ name }) => whereFor(name)))].join('; '));
};

/**
 * Files that are dropped where nothing takes them: it is said where they belong. Without this the browser would leave
 * the app and show the file.
 */
export const useStrayDrops = (): void => {
  useEffect(() => {
    const carriesFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') ?? false;
    const over = (event: DragEvent) => {
      if (carriesFiles(event)) event.preventDefault();
    };
    const drop = (event: DragEvent) => {
      if (event.defaultPrevented || !carriesFiles(event)) return;
      event.preventDefault();
      const files = [...(event.dataTransfer?.files ?? [])];
      if (files.length) store.dispatch(noticed({ text: told(files), subject: 'file' }));
    };
    window.addEventListener('dragover', over);
    window.addEventListener('drop', drop);
    return () => {
      window.removeEventListener('dragover', over);
      window.removeEventListener('drop', drop);
    };
  }, []);
};
