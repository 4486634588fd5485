import { InvalidArgumentError } from 'commander';
import { GRIDS, type Grid } from '../core/document/grid';
import { INSTRUMENTS, type InstrumentId } from '../core/document/instruments';
import { clamp, type MidiNote } from '../core/units';
import { warn } from './files';

/** A number as it was asked for; whether it fits is seen when it is known what it is for. */
export const aNumber = (text: string): number => {
  const value = Number(text);
  if (text.trim() === '' || !Number.isFinite(value)) throw new InvalidArgumentError('It is to be a number.');
  return value;
};

export const aWhole = (text: string): number => {
  const value = aNumber(text);
  if (!Number.isInteger(value)) throw new InvalidArgumentError('It is to be a whole number.');
  return value;
};

export const aGrid = (text: string): Grid => {
  const grid = GRIDS.find((one) => one === text);
  if (!grid) throw new InvalidArgumentError(`It is to be one of ${GRIDS.join(', ')}.`);
  return grid;
};

export const aSwingGrid = (text: string): '1/8' | '1/16' => {
  if (text !== '1/8' && text !== '1/16') throw new InvalidArgumentError('It is to be 1/8 or 1/16.');
  return text;
};

/** Holds a number to its range, and says so. */
export const within = (name: string, value: number, least: number, most: number): number => {
  const kept = clamp(value, least, most);
  if (kept !== value) warn(`${name} runs from ${least} to ${most}: ${value} became ${kept}.`);
  return kept;
};

/** A note number, or an instrument by its id. */
export const aNote = (text: string): MidiNote => {
  if (/^\d+$/.test(text) && Number(text) <= 127) return Number(text);
  if (Object.hasOwn(INSTRUMENTS, text)) return INSTRUMENTS[text as InstrumentId].note;
  throw new InvalidArgumentError(`“${text}” is neither a note number from 0 to 127 nor an instrument.`);
};

/** The note numbers of a file, for a sentence that says what there is. */
export const numbersIn = (notes: { note: MidiNote }[]): string =>
  [...new Set(notes.map(({ note }) => note))].sort((a, b) => a - b).join(', ');
