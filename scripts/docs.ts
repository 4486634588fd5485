/** Writes what the documentation takes from the code. */
import fs from 'node:fs';
import { editsPage } from '../core/edit/listText';
import { housePicture } from './house';

fs.writeFileSync('docs/edits.md', editsPage());
fs.writeFileSync('docs/house.svg', housePicture());
