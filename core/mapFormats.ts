/** All that reads and writes drum maps and keepers, in one piece: it brings checks and parsers with it, and is fetched when it is needed. */
export { readDrumMap } from './midi/drumMapFile';
export { midnamText, readMapCsv, readMidnam } from './midi/mapFiles';
export { readKeepers } from './groove/keepersFile';
