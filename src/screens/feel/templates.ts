import type { Read } from '../../../core/beat/file';
import type { Shape } from '../../../core/beat/feelSchema';
import { formats } from '../../state/session';
import type { DrumGroup } from '../../../core/beat/choices';
import { GROUP_NAMES } from '../../../core/beat/drumGroups';
import { barTicks, meterText } from '../../../core/beat/meter';
import { listed } from '../../../core/beat/text';
import { meterOfShape } from '../../../core/feel/templateMeter';
import { findGrid, takeTemplate } from '../../../core/feel/takeTemplate';
import type { Performance } from '../../../core/feel/performance';
import { performanceOf, readMidi } from '../../../core/midi/readFile';

/** A performance that a template may be taken from. */
export interface Source {
  name: string;
  performance: Performance;
}

export const isMidi = (bytes: Uint8Array): boolean => String.fromCharCode(...bytes.subarray(0, 4)) === 'MThd';

const bare = (name: string): string => name.replace(/\.(midi?|json|ruddik)$/gi, '');

/** The notes of a MIDI file, to take a template from. */
export const sourceOf = (name: string, bytes: Uint8Array): Read<Source> => {
  const file = readMidi(bytes);
  if (!file.ok) return { ok: false, error: `${name} could not be read. ${file.error}` };
  if (!file.value.notes.length)
    return { ok: false, error: `${name} has no notes, so no template can be taken from it.` };
  return { ok: true, value: { name: bare(name), performance: performanceOf(file.value) } };
};

/** A template from a file of either kind: its own, or a MIDI file whose every bar is taken. */
export const openTemplate = async (
  name: string,
  bytes: Uint8Array,
): Promise<Read<Shape & { about?: string | undefined }>> => {
  if (!isMidi(bytes)) {
    const { readTemplate } = await formats();
    const read = readTemplate(new TextDecoder().decode(bytes));
    return read.ok ? read : { ok: false, error: `${name} could not be read. ${read.error}` };
  }
  const source = sourceOf(name, bytes);
  if (!source.ok) return source;
  const { performance } = source.value;
  const shape = takeTemplate(source.value.name, performance, {
    grid: findGrid(performance),
    length: performance.length,
  });
  return shape ? { ok: true, value: shape } : { ok: false, error: `${name} has no notes.` };
};

/** How many bars a performance has. */
export const barsOf = ({ length, meter }: Performance): number =>
  Math.max(1, Math.round(length / barTicks(meter)));

/**
 * What a template is made of, in words.
 *
 * @example madeOf(shipped) // "7/8: 14 slots of 1/16"
 */
export const madeOf = (shape: Shape): string => {
  const groups = Object.keys(shape.groups ?? {}).map((group) => GROUP_NAMES[group as DrumGroup]);
  const own = groups.length ? `; curves of their own for ${listed(groups)}` : '';
  return `${meterText(meterOfShape(shape))}: ${shape.slots.length} slots of ${shape.grid}${own}`;
};
