import { readMidiFile } from '../../../core/midi/read/readMidi';
import type { Read } from '../../../core/document/file';
import type { Shape } from '../../../core/document/feelSchema';
import type { DrumGroup } from '../../../core/document/choices';
import { GROUP_NAMES } from '../../../core/document/drumGroups';
import { barTicks, meterText } from '../../../core/document/meter';
import { bareName, listed } from '../../../core/document/text';
import { meterOfShape } from '../../../core/feel/templateMeter';
import type { Performance } from '../../../core/analysis/performance';
import { performanceOf } from '../../../core/midi/read/midiFile';
import { readAside } from '../../workers/aside';
import { words } from '../../words/feel';

/** A performance that a template may be taken from. */
export interface TemplateSource {
  name: string;
  performance: Performance;
}

/** The notes of a MIDI file, to take a template from. */
export const templateSourceOf = async (name: string, bytes: Uint8Array): Promise<Read<TemplateSource>> => {
  const checked = await readAside('checkNotes', name, bytes);
  if (!checked.ok) return checked;
  const file = readMidiFile(bytes);
  return file.ok
    ? { ok: true, value: { name: bareName(name), performance: performanceOf(file.value) } }
    : file;
};

/** How many bars a performance has. */
export const templateBarsOf = ({ length, meter }: Performance): number =>
  Math.max(1, Math.round(length / barTicks(meter)));

/**
 * What a template is made of, in words.
 *
 * @example madeOf(shipped) // "7/8: 14 slots of 1/16"
 */
export const madeOf = (shape: Shape): string => {
  const groups = Object.keys(shape.groups ?? {}).map((group) => GROUP_NAMES[group as DrumGroup]);
  const own = groups.length ? words.curvesOfTheirOwnFor(listed(groups)) : '';
  return words.meterManySlotsOfGrid(meterText(meterOfShape(shape)), shape.slots.length, shape.grid, own);
};
