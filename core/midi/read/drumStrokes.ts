import { DRUM_IDS, instrument, type InstrumentId } from '../../document/instruments';
import type { StickStroke } from '../../hands/sticking';
import { secondsAt } from '../../play/tempoMap';
import { QUARTER } from '../../units';
import type { MidiFile } from './midiFile';

/**
 * The strokes of a file that a drummer plays, in order of time.
 *
 * @returns and how many notes are left out: those of no General MIDI drum on channel 10
 */
export const drumStrokes = (file: MidiFile): { strokes: StickStroke[]; left: number } => {
  const strokes: StickStroke[] = [];
  let left = 0;
  for (const note of file.notes) {
    const id: InstrumentId | undefined =
      note.channel === 10 ? DRUM_IDS.find((one) => instrument(one).note === note.note) : undefined;
    if (!id) {
      left += 1;
      continue;
    }
    const tick = (note.start * QUARTER) / file.ppq;
    const span = file.bars.at(tick);
    strokes.push({
      ms: 1000 * secondsAt(file.tempos, tick),
      at: (tick - span.from) % span.bar,
      velocity: note.velocity,
      instrument: id,
    });
  }
  return { strokes: strokes.sort((a, b) => a.ms - b.ms), left };
};
