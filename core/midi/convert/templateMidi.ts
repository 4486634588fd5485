import { modulo } from '../../numbers';
import type { Shape } from '../../document/feelSchema';
import { shapePerformance } from '../../analysis/patternPerformance';
import { emptyColumns } from '../write/noteColumns';
import { writeSong } from '../write/write';

const PPQ = 960;
/** General MIDI's snare, which every sequencer shows as a drum. */
const NOTE = 38;
const LENGTH = 60;

/**
 * A template as a MIDI file: a note for each slot, early ones of the first slot around the end.
 *
 * @example isMidi(templateMidi(shape)) // true
 */
export const templateMidi = (shape: Shape): Uint8Array => {
  const { notes, length, meter } = shapePerformance(shape);
  const end = Math.round(length);
  const ticks = notes.map(({ at }) => modulo(Math.round(at), end));
  const order = ticks.map((_, at) => at).sort((a, b) => ticks[a]! - ticks[b]!);
  const columns = emptyColumns(notes.length);
  order.forEach((from, at) => {
    const next = order[at + 1];
    columns.tick[at] = ticks[from]!;
    columns.length[at] = Math.max(
      1,
      Math.min(LENGTH, (next === undefined ? end : ticks[next]!) - ticks[from]!),
    );
    columns.velocity[at] = Math.round(notes[from]!.velocity);
    columns.note[at] = NOTE;
    columns.channel[at] = 10;
  });
  return writeSong({
    format: 0,
    ppq: PPQ,
    name: shape.name,
    tempos: [{ tick: 0, micros: 500_000 }],
    meters: [{ tick: 0, meter }],
    markers: [{ tick: 0, text: `Groove template on ${shape.grid}` }],
    tracks: [{ name: shape.name, notes: columns }],
    end,
  });
};
