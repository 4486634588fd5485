import { newBeat, newHit, lanePatternOf, withLanePattern } from './document/defaults';
import type { Beat, Pattern } from './document/schema';
import { newEntry } from './edit/song';
import { spotsOf } from './edit/spots';
import { HOW_DEFAULTS, WHAT_DEFAULTS } from './export/choice';
import { piecesOf } from './export/pieces';
import { importFile } from './groove/importing';
import { builtInGrooves } from './groove/library';
import { templateMidi } from './midi/convert/templateMidi';
import { GENERAL_MIDI } from './midi/drumMap/drumMap';
import { performanceOf } from './midi/read/midiFile';
import { readMidiFile } from './midi/read/readMidi';

/**
 * The data that examples in docstrings are about: a beat called "Ferry" at 120 BPM with a kick on every beat
 * and a snare on the second and the fourth, its only pattern "a", and what can be made of them.
 */
const struck = (pattern: Pattern, laneId: string, steps: number[]): Pattern =>
  withLanePattern(pattern, laneId, {
    ...lanePatternOf(pattern, laneId),
    hits: steps.map((step) => newHit(step)),
  });

const plain = { ...newBeat('b', 'Ferry', 7), tempo: 120 };
const pattern = struck(struck(plain.patterns[0]!, 'kick', [0, 4, 8, 12]), 'snare', [4, 12]);
const beat: Beat = { ...plain, patterns: [pattern] };
const songBeat: Beat = {
  ...beat,
  song: {
    sections: [{ id: 's', name: 'Verse', pigment: 'weld', entries: [newEntry('e', 'a', 2)], silent: [] }],
    order: [{ id: 'p', sectionId: 's', times: 2 }],
  },
};
const shape = {
  name: 'Late',
  grid: '1/16' as const,
  slots: [
    { offset: 0, velocity: 0.9 },
    { offset: 0.1, velocity: 0.45 },
  ],
};
const bytes = templateMidi(shape);
const read = readMidiFile(bytes);
if (!read.ok) throw new Error(read.error);
const file = read.value;
const pieces = piecesOf(beat, HOW_DEFAULTS, { ...WHAT_DEFAULTS, patternId: 'a' });
if (!pieces.ok) throw new Error(pieces.error);
const imported = importFile(bytes, { path: 'rain.mid', source: 'imported', map: GENERAL_MIDI });
if (!imported.ok) throw new Error(imported.value.why);

export const FIXTURES = {
  beat,
  pattern,
  songBeat,
  shape,
  bytes,
  file,
  performance: performanceOf(file),
  spots: spotsOf(pattern, 'kick'),
  groove: builtInGrooves()[0]!,
  piece: pieces.pieces[0]!,
  indexed: imported.value.indexed,
};
