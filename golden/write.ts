/** Writes all notes and files anew; what has changed is seen in the repository's own differences. */
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { EXPORTS, exportText } from './exports';
import { golden, HERE, names, notesText, written } from './read';

let changed = 0;
const write = (folder: 'notes' | 'midi', name: string, text: string): void => {
  if (written(folder, name) === text) return;
  mkdirSync(path.join(HERE, folder), { recursive: true });
  writeFileSync(path.join(HERE, folder, `${name}.txt`), text);
  process.stdout.write(`${folder}/${name}.txt has changed\n`);
  changed += 1;
};

for (const name of names()) write('notes', name, notesText(golden(name)));
for (const [name, chosen] of Object.entries(EXPORTS)) write('midi', name, exportText(chosen));
process.stdout.write(
  changed ? `${changed} files have changed: look at each before it is kept.\n` : 'Nothing has changed.\n',
);
