import { XMLBuilder, XMLParser, XMLValidator } from 'fast-xml-parser';
import Papa from 'papaparse';
import type { Read } from '../../document/file';
import { INSTRUMENTS } from '../../document/instruments';
import type { MidiNote } from '../../units';
import { instrumentMeant, isPlayable, type DrumMap } from './drumMap';
import type { MapPreview } from './mapPreview';

const fault = (error: string): { ok: false; error: string } => ({ ok: false, error });

const isNote = (value: number): value is MidiNote => Number.isInteger(value) && value >= 0 && value <= 127;

const LISTED = ['NoteNameList', 'Note', 'MasterDeviceNames', 'ChannelNameSet', 'PatchBank', 'Patch'];

const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '',
  isArray: (name) => LISTED.includes(name),
  // What a document declares of its own is not followed: it may be made to swell.
  processEntities: { enabled: true, maxTotalExpansions: 1000, maxExpandedLength: 100_000 },
});

interface XmlNote {
  Number?: string;
  Name?: string;
}
type Node = Record<string, unknown>;

/** Every list of note names, however deep it stands. */
const listsIn = (node: unknown): Node[] => {
  if (Array.isArray(node)) return node.flatMap(listsIn);
  if (!node || typeof node !== 'object') return [];
  return Object.entries(node as Node).flatMap(([key, value]) =>
    key === 'NoteNameList' ? (value as Node[]) : listsIn(value),
  );
};

const MOST_TEXT = 2 * 1024 * 1024;

/**
 * Reads the note names of a MIDINameDocument (`.midnam`).
 *
 * @returns the first list of note names that holds any, or a sentence that says why not
 */
export const readMidnam = (text: string): Read<MapPreview> => {
  if (text.length > MOST_TEXT) return fault('It is larger than 2 MB.');
  if (XMLValidator.validate(text) !== true) return fault('It is not XML, or it is cut short.');
  let document: Node;
  try {
    document = parser.parse(text) as Node;
  } catch {
    return fault('It could not be read as XML.');
  }
  if (!('MIDINameDocument' in document)) return fault('It is XML, but not a MIDI name document.');
  const list = listsIn(document).find((one) => Array.isArray(one['Note']));
  if (!list) return fault('It names no notes.');
  const warnings: string[] = [];
  const notes = (list['Note'] as XmlNote[]).flatMap(({ Number: number, Name: name = '' }) => {
    const note = number === undefined || number === '' ? NaN : Number(number);
    if (isNote(note)) return [{ note, name, instrument: instrumentMeant(name) }];
    warnings.push(`“${name}” was left out: “${number ?? ''}” is no note from 0 to 127.`);
    return [];
  });
  return {
    ok: true,
    value: { name: typeof list['Name'] === 'string' ? list['Name'] : 'Drum map', notes, warnings },
  };
};

/** A map as a MIDINameDocument. @example midnamText(GENERAL_MIDI).startsWith('<?xml') // true */
export const midnamText = (map: DrumMap): string => {
  const builder = new XMLBuilder({ ignoreAttributes: false, attributeNamePrefix: '@', format: true });
  const notes = map.notes.filter(isPlayable).map(({ note, instrument }) => ({
    '@Number': note,
    '@Name': INSTRUMENTS[instrument].name,
  }));
  const body = builder.build({
    '?xml': { '@version': '1.0', '@encoding': 'UTF-8' },
    MIDINameDocument: {
      Author: 'Ruddik',
      MasterDeviceNames: {
        Manufacturer: 'Ruddik',
        Model: map.name,
        NoteNameList: { '@Name': map.name, Note: notes },
      },
    },
  }) as string;
  return body;
};

const NUMBER_HEADS = /^(note|number|midi|key|nr|no)/i;
const NAME_HEADS = /(name|instrument|drum|sound|articulation)/i;

const columnOf = (head: string[], pattern: RegExp, otherwise: number): number => {
  const at = head.findIndex((cell) => pattern.test(cell.trim()));
  return at < 0 ? otherwise : at;
};

/**
 * Reads a table of note numbers and names, whatever it is separated by, with a line of heads or without.
 *
 * @returns what it is taken for, to be looked at, or a sentence that says why not
 * @example readMapCsv('36,Kick').ok // true
 */
export const readMapCsv = (text: string, name = 'Drum map'): Read<MapPreview> => {
  if (text.length > MOST_TEXT) return fault('It is larger than 2 MB.');
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').trim(), { skipEmptyLines: 'greedy' });
  const [head] = data;
  if (!head || head.length < 2) return fault('It is not a table of note numbers and names.');
  const headed = !head.some((cell) => cell.trim() !== '' && isNote(Number(cell)));
  const number = headed ? columnOf(head, NUMBER_HEADS, 0) : Number.isInteger(Number(head[0])) ? 0 : 1;
  const names = headed ? columnOf(head, NAME_HEADS, 1) : 1 - number;
  const warnings: string[] = [];
  const notes = data.slice(headed ? 1 : 0).flatMap((row, at) => {
    const cell = row[number]?.trim() ?? '';
    const note = cell === '' ? NaN : Number(cell);
    const named = row[names]?.trim() ?? '';
    if (isNote(note)) return [{ note, name: named, instrument: instrumentMeant(named) }];
    warnings.push(`Line ${at + (headed ? 2 : 1)} was left out: “${cell}” is no note from 0 to 127.`);
    return [];
  });
  return notes.length
    ? { ok: true, value: { name, notes, warnings } }
    : fault('No line of it begins with a note from 0 to 127.');
};
