import { readdirSync } from 'node:fs';
import path from 'node:path';
import { EXPORTS, exportText } from './exports';
import { golden, HERE, names, notesText, written } from './read';

/** A beat that is not written down yet is written by `npm run golden`. */
describe('every note is the one that was written down', () => {
  test.each(names())('%s', (name) =>
    expect(notesText(golden(name)).split('\n')).toEqual(written('notes', name).split('\n')),
  );
});

describe('every byte of a MIDI file is the one that was written down', () => {
  test.each(Object.keys(EXPORTS))('%s', (name) =>
    expect(exportText(EXPORTS[name]!).split('\n')).toEqual(written('midi', name).split('\n')),
  );
});

test('nothing lies there that is of no beat any more', () => {
  const texts = (folder: string) =>
    readdirSync(path.join(HERE, folder)).map((file) => path.basename(file, '.txt'));
  expect(texts('notes').sort()).toEqual(names());
  expect(texts('midi').sort()).toEqual(Object.keys(EXPORTS).sort());
  expect(names().length).toBeGreaterThanOrEqual(40);
});
