/** Writes what the documentation takes from the code. */
import fs from 'node:fs';
import { editsPage } from '../core/edit/listText';

fs.writeFileSync('docs/edits.md', editsPage());
