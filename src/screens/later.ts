/**
 * The screens that come after the first, fetched together: what they share would otherwise be fetched with the first
 * screen, which needs none of it.
 */
export { recallRoute } from '../store/recallRoute';
export { askAside } from '../workers/aside';
export { builtIn } from '../grooves/builtIn';
export { heardOwn } from './pattern/heardOwn';
export { saveWithSounds } from './beats/withSounds';
export { BeatsScreen } from './beats/BeatsScreen';
export { CommandSheet } from './frame/CommandSheet';
export { KeysSheet } from './frame/KeysSheet';
export { BringSheet } from './pattern/BringSheet';
export { NewLane } from './pattern/NewLane';
export { KitSheet } from './pattern/KitSheet';
export { LoopSheet } from './pattern/loop/LoopSheet';
export { Drawer } from './pattern/drawer/Drawer';
export { PatternsSheet } from './pattern/PatternsSheet';
export { ExportScreen } from './export/ExportScreen';
export { FeelScreen } from './feel/FeelScreen';
export { GroovesScreen } from './grooves/GroovesScreen';
export { goOn as goOnWithFolder } from './beats/folderSteps';
export { install } from './frame/installing';
export { openPorts } from '../ports/live';
export { PortsScreen } from './ports/PortsScreen';
export { StandIns } from './standIns/StandIns';
export { KitScreen } from './kit/KitScreen';
export { SongScreen } from './song/SongScreen';
import { shelf } from './grooves/shelf';
import { words } from '../words/state';

export { drumsFirst, isMixed } from '../../core/midi/read/parts';

/** Looks whether all grooves that are kept are listed, and says so. */
export const checkGrooves = async (): Promise<string> => {
  const mended = await shelf.check().catch(() => -1);
  if (mended < 0) return words.theGroovesThatAreKept;
  return mended ? words.mendedGroovesWereKeptBut(mended) : words.allGroovesThatAreKept;
};
