import { useEffect } from 'react';
import { listed } from '../../core/beat/text';
import { store } from '../state/session';
import { noticed } from '../state/slices';

/** So many names are said; of more, their number. */
const MOST_NAMED = 3;

/** Where files of this kind are taken. @example whereFor('rain.mid') // "on Grooves or Beats" */
const whereFor = (name: string): string => {
  if (/\.zip$/i.test(name)) return 'ZIP archives of MIDI files on Grooves';
  if (/\.midi?$/i.test(name))
    return 'MIDI files on Grooves (as grooves), Beats (as a beat) or Feel (as a template)';
  if (/\.json$/i.test(name))
    return 'beats on Beats; templates, feels, maps and keepers are opened on their pages';
  return 'beats and MIDI files, nothing else, on Beats and Grooves';
};

const told = (files: File[]): string => {
  const names = files.map(({ name }) => `“${name}”`);
  const which =
    names.length > MOST_NAMED
      ? `${names.length} files are`
      : `${listed(names)} ${names.length === 1 ? 'is' : 'are'}`;
  return `${which} not taken here. Drop ${[...new Set(files.map(({ name }) => whereFor(name)))].join('; ')}.`;
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
