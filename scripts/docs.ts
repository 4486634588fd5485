/** Writes what the documentation takes from the code. */
import fs from 'node:fs';
import { editsPage } from '../core/edit/listText';
import { kitFigures } from '../core/synthesis/kitFigures';
import { KITS } from '../core/synthesis/kits';
import { kitsPage } from '../core/synthesis/kitsPage';
import { keysPage } from '../src/screens/frame/keyList';
import { housePicture } from './house';

fs.writeFileSync('docs/edits.md', editsPage());
fs.writeFileSync('docs/keys.md', keysPage());
fs.writeFileSync('docs/house.svg', housePicture());
fs.writeFileSync(
  'docs/kits.md',
  kitsPage(new Map(Object.values(KITS).map((kit) => [kit.id, kitFigures(kit, 48000)]))),
);
