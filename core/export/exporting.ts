import { lastAt } from '../numbers';
import { soundingLanes } from '../document/defaults';
import type { Read } from '../document/file';
import { meterText } from '../document/meter';
import { count, fileName } from '../document/text';
import type { Beat } from '../document/schema';
import { GENERAL_MIDI } from '../midi/drumMap/drumMap';
import type { Leads } from '../mix/leads';
import { timeWords } from '../play/time';
import { secondsAt } from '../play/tempoMap';
import { bounceVoices, tooLarge, type BounceHow } from './bounce';
import type { ExportHow, ExportWhat, ExportKind } from './choice';
import { csvOf, tempoOf } from './list';
import { barsOf, midiOf, type MidiPiece, type MidiVoice } from './midi';
import { musicXmlOf } from './musicXml';
import { namedBy, unlike } from './names';
import { heldBars, piecesOf, warningsOf, type Piece } from './pieces';
import { tabOf } from './tab';

/** A file that is written, or is to be bounced. */
export interface OutFile {
  /** '' is none. */
  folder: string;
  name: string;
  /** Null as long as it has not been bounced. */
  data: Uint8Array | string | null;
  bars: number;
  tracks: number;
  notes: number;
  /** Which piece and which lanes it is of, for a bounce. */
  piece: number;
  voice: MidiVoice | null;
}

/** The files of a choice, and the remarks about it. */
export interface Exported {
  beat: Beat;
  pieces: Piece[];
  files: OutFile[];
  map: string;
  warnings: string[];
  /** Notes that the feel carries over the edges of what is written. */
  carried: number;
  /** Names of the lanes that are left out since they are muted, or another one is soloed. */
  leftOut: string[];
  /** The name of the files together. */
  zipName: string;
}

export const ENDINGS: Record<ExportKind, string> = {
  midi: 'mid',
  audio: 'wav',
  paper: 'musicxml',
  tab: 'txt',
  list: 'csv',
};

export const MIME: Record<ExportKind, string> = {
  midi: 'audio/midi',
  audio: 'audio/wav',
  paper: 'application/vnd.recordare.musicxml+xml',
  tab: 'text/plain',
  list: 'text/csv',
};

type Made = Omit<OutFile, 'folder' | 'name'> & { lane: string };

/** How many notes of a piece some lanes play, or all. */
const hits = (piece: Piece, lanes?: ReadonlySet<number>): number =>
  lanes ? piece.notes().filter(({ lane }) => lanes.has(lane)).length : piece.notes().length;

/** Bars that the song does not have are not written, which is said. */
const heldRange = ([piece]: Piece[], { scope }: ExportHow, { bars }: ExportWhat): string[] => {
  if (scope !== 'range' || !piece) return [];
  const all = piece.plan.timeline.bars.length;
  const { from, to } = heldBars(bars, all);
  if (from === bars.from && to === bars.to) return [];
  return [`The song has ${count(all, 'bar')}, so ${bars.from} to ${bars.to} became ${from} to ${to}.`];
};

interface Told {
  warnings: string[];
  carried: number;
}

/** Remarks about notes of a piece that did not come through as they are. */
const tell = (
  told: Told,
  { name }: Piece,
  several: boolean,
  { dropped, merged, carried }: MidiPiece,
): void => {
  const where = several ? `In “${name}” ` : '';
  if (dropped)
    told.warnings.push(`${where}${count(dropped, 'note')} found no room beside others of the same number.`);
  if (merged)
    told.warnings.push(
      `${where}${count(merged, 'stroke')} less than 1 ms from another on the same lane ${merged === 1 ? 'becomes' : 'become'} one with it.`,
    );
  told.carried += carried;
};

const filesOf = (
  piece: Piece,
  at: number,
  beat: Beat,
  how: ExportHow,
  several: boolean,
  told: Told,
  leads: Leads | null,
): Made[] => {
  const bars = barsOf(piece).length;
  const plain = { bars, tracks: 1, piece: at, voice: null, lane: '' };
  switch (how.kind) {
    case 'midi': {
      const made = midiOf(piece, beat, how, leads);
      tell(told, piece, several, made);
      return made.files.map(({ voice, bytes, tracks, notes }) => ({
        bars,
        tracks,
        notes,
        data: bytes,
        piece: at,
        voice,
        lane: how.split === 'none' || made.files.length === 1 ? '' : voice.name,
      }));
    }
    case 'audio':
      return bounceVoices(piece, beat, how).map((voice) => ({
        ...plain,
        notes: hits(piece, voice.lanes),
        data: null,
        voice,
        lane: voice.name,
      }));
    case 'paper':
      return [{ ...plain, notes: hits(piece), data: musicXmlOf(piece, beat, how.hands) }];
    case 'tab':
      return [{ ...plain, notes: hits(piece), data: tabOf(piece, beat) }];
    case 'list':
      return [{ ...plain, notes: hits(piece), data: csvOf(piece, beat) }];
  }
};

const named = (beat: Beat, how: ExportHow, pieces: Piece[], made: Made[]): OutFile[] => {
  const folders = pieces.length > 1 && made.length > pieces.length;
  const names = made.map(({ piece: at, lane }) => {
    const piece = pieces[at]!;
    return namedBy(how.names, {
      beat: beat.name,
      section:
        piece.number === null || folders
          ? piece.name
          : `${String(piece.number).padStart(2, '0')}-${piece.name}`,
      lane,
      bpm: tempoOf(piece),
      meter: barsOf(piece)[0]?.meter ?? { beats: 4, unit: 4 },
      bars: barsOf(piece).length,
      number: folders ? null : piece.number,
    });
  });
  const folderOf = ({ number, name }: Piece) =>
    folders ? fileName(`${String(number ?? 1).padStart(2, '0')}-${name}`) : '';
  const paths = unlike(made.map((_, at) => `${folderOf(pieces[made[at]!.piece]!)}/${names[at]!}`));
  return made.map(({ lane: _lane, ...file }, at) => {
    const [folder, name] = paths[at]!.split('/') as [string, string];
    return { ...file, folder, name: `${name}.${ENDINGS[how.kind]}` };
  });
};

/**
 * The lanes that nobody hears, by name: they are muted, or another one is soloed. They are left out unless they are asked for.
 *
 * @example leftOutOf({ ...beat, lanes: beat.lanes.map((lane, at) => ({ ...lane, mute: at === 0 })) }) // ['Kick']
 */
export const leftOutOf = (beat: Beat): string[] => {
  const heard = new Set(soundingLanes(beat));
  return beat.lanes.filter((lane) => !heard.has(lane)).map(({ name }) => name);
};

/**
 * Everything that a choice writes of a beat. Audio is only prepared: its bytes come of a bounce.
 *
 * @param leads of the beat's sounds, for MIDI that is to come earlier by them
 * @returns a sentence for a person where there is nothing to write, or too much
 * @example
 * exported(beat, { ...HOW_DEFAULTS, scope: 'song' }, WHAT_DEFAULTS)
 * // { ok: false, error: "The song is empty: add a section on the Song screen, or choose a pattern." }
 */
export const exported = (
  original: Beat,
  how: ExportHow,
  what: ExportWhat,
  leads: Leads | null = null,
): Read<Exported> => {
  const found = piecesOf(original, how, what);
  if (!found.ok) return found;
  const { beat, pieces } = found;
  if (how.kind === 'audio') {
    const large = tooLarge(pieces, beat, how as BounceHow);
    if (large) return { ok: false, error: large };
  }
  const told: Told = {
    warnings: [...heldRange(pieces, how, what), ...warningsOf(original, beat, how)],
    carried: 0,
  };
  const several = pieces.length > 1;
  const made = pieces.flatMap((piece, at) =>
    filesOf(piece, at, beat, how, several, told, how.lead ? leads : null),
  );
  return {
    ok: true,
    value: {
      beat,
      pieces,
      files: named(beat, how, pieces, made),
      map: (how.map ?? original.map ?? GENERAL_MIDI).name,
      ...told,
      leftOut: how.includeMuted ? [] : leftOutOf(beat),
      zipName: `${fileName(beat.name, how.scope === 'pattern' ? pieces[0]!.name : how.scope, how.kind)}.zip`,
    },
  };
};

/** Where a file lies within a ZIP. @example pathOf({ folder: "A", name: "kick.mid" }) // "A/kick.mid" */
export const pathOf = ({ folder, name }: Pick<OutFile, 'folder' | 'name'>): string =>
  folder ? `${folder}/${name}` : name;

/** The list that lies in a ZIP beside the files, for people. */
export const listOf = ({ beat, files, map, warnings, pieces }: Exported): string => {
  const layout = pieces[0]?.plan.timeline;
  const spans = layout?.spans.filter(({ section }) => section) ?? [];
  const starts = layout?.bars.map(({ from }) => from) ?? [];
  const lines = [
    `${beat.name}, ${beat.tempo} BPM`,
    `Written with the drum map “${map}”. Every file ends on a bar line.`,
    '',
    'Files',
    ...files.map((file) =>
      [
        pathOf(file),
        count(file.bars, 'bar'),
        ...(file.data instanceof Uint8Array && /\.mid$/.test(file.name) ? [count(file.tracks, 'track')] : []),
        ...(file.notes ? [count(file.notes, 'note')] : []),
      ].join(', '),
    ),
    ...(spans.length && layout
      ? [
          '',
          'The song',
          ...spans.map(({ from, section }) => {
            const bar = lastAt(starts, from);
            const { meter } = layout.bars[bar]!;
            return `Bar ${bar + 1}, ${timeWords(secondsAt(layout.tempos, from))}: ${section!.name}, ${meterText(meter)}`;
          }),
        ]
      : []),
    ...(warnings.length ? ['', 'To know', ...warnings] : []),
  ];
  return `${lines.join('\n')}\n`;
};
