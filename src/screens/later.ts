/**
 * The screens that come after the first, fetched together: what they share would otherwise be fetched with the first
 * screen, which needs none of it.
 */
export { ExportScreen } from './export/ExportScreen';
export { FeelScreen } from './feel/FeelScreen';
export { GroovesScreen } from './grooves/GroovesScreen';
export { SongScreen } from './song/SongScreen';
export { drumsFirst, isMixed } from '../../core/midi/parts';
export { beatFromMidi, midiParts } from '../../core/song/fromMidi';
