/** All that reads files, in one piece: it brings the checks with it, which are large, and is fetched when it is needed. */
export { isNewer, readBeat, readBeats } from './beat/file';
export { readTemplate } from './feel/templateFile';
export { readDrumMap } from './midi/drumMapFile';
export { readKeepers } from './groove/keepersFile';
