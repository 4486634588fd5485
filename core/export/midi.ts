import { lastAt } from '../numbers';
import { lanesIn } from '../play/driver';
import { barTicks, beatTicks, type Meter } from '../document/meter';
import type { Beat, Lane } from '../document/schema';
import { fileNotes, type FileNotes } from '../midi/write/fileNotes';
import { emptyColumns, ofLanes, type NoteColumns } from '../midi/write/noteColumns';
import { writeSong } from '../midi/write/write';
import type { Note } from '../play/notes';
import { secondsAt, tickAtSeconds } from '../play/tempoMap';
import { leadAt, type Leads } from '../mix/leads';
import { QUARTER, type Channel, type Ticks } from '../units';
import type { ExportHow } from './choice';
import type { Piece } from './pieces';

/** Some lanes that are written together: all, one, or those of a group. */
export interface MidiVoice {
  /** '' is all of them. */
  name: string;
  lanes: ReadonlySet<number>;
}

/** A MIDI file that was written, and what is in it. */
export interface WrittenMidi {
  voice: MidiVoice;
  bytes: Uint8Array;
  tracks: number;
  notes: number;
}

/** The outcome of one piece. */
export interface MidiPiece {
  files: WrittenMidi[];
  bars: number;
  dropped: number;
  carried: number;
  merged: number;
}

const DRUM_CHANNEL: Channel = 10;
const CHANNELS = 16;

const channelOf = (how: ExportHow, lane: Lane, at: number): Channel => {
  if (how.channels === 'whole') return how.channel;
  if (how.channels === 'each') return ((how.channel - 1 + at) % CHANNELS) + 1;
  return lane.channel === DRUM_CHANNEL ? how.channel : lane.channel;
};

/**
 * The lanes of a piece, as they are split: those with notes only.
 *
 * @example voicesOf(beat, { split: 'lanes' }, new Set([0, 1])).map(({ name }) => name) // ["Kick", "Snare"]
 */
export const voicesOf = (
  beat: Beat,
  how: Pick<ExportHow, 'split'>,
  playing: ReadonlySet<number>,
): MidiVoice[] => {
  const all: MidiVoice = { name: '', lanes: playing };
  if (how.split === 'none') return [all];
  const out: MidiVoice[] = [];
  const grouped = new Map<string, Set<number>>();
  beat.lanes.forEach((lane, at) => {
    if (!playing.has(at)) return;
    const group = how.split === 'groups' ? beat.groups.find(({ id }) => id === lane.group) : undefined;
    const known = group && grouped.get(group.id);
    if (known) {
      known.add(at);
      return;
    }
    const lanes = new Set([at]);
    if (group) grouped.set(group.id, lanes);
    out.push({ name: group?.name ?? lane.name, lanes });
  });
  return out.length ? out : [all];
};

/** The bars of a piece, told from its start. @example barsOf(piece) // [{ from: 0, meter: { beats: 4, unit: 4 } }] */
export const barsOf = ({ plan, range }: Piece) =>
  plan.timeline.bars
    .filter(({ from }) => from >= range.from - 1e-6 && from < range.to - 1e-6)
    .map(({ from, meter }) => ({ from: from - range.from, meter }));

const sameMeter = (a: Meter, b: Meter): boolean => a.beats === b.beats && a.unit === b.unit;

/** The events of the whole, in ticks of the file, `shift` later. */
const conductorOf = (piece: Piece, beat: Beat, ppq: number, shift: Ticks) => {
  const scale = ppq / QUARTER;
  const { plan, range, name } = piece;
  const { tempos, spans } = plan.timeline;
  const at = (tick: Ticks) =>
    Math.round((Math.max(0, tick - range.from) + (tick > range.from ? shift : 0)) * scale);
  const later = (tick: Ticks) => Math.round((tick - range.from + shift) * scale);
  const first = lastAt(tempos.ticks, range.from);
  const bars = barsOf(piece);
  return {
    name: beat.name,
    tempos: tempos.ticks.flatMap((tick, index) =>
      index >= first && tick < range.to ? [{ tick: at(tick), micros: tempos.micros[index]! }] : [],
    ),
    meters: bars.flatMap(({ from, meter }, index) =>
      index === 0 || !sameMeter(meter, bars[index - 1]!.meter)
        ? [{ tick: index === 0 ? 0 : Math.round((from + shift) * scale), meter }]
        : [],
    ),
    markers: spans.some(({ section }) => section)
      ? spans
          .filter(({ from, length }) => from + length > range.from && from < range.to)
          .map(({ from, section }) => ({
            tick: Math.max(0, later(Math.max(from, range.from))),
            text: section!.name,
          }))
      : [{ tick: Math.round(shift * scale), text: name }],
  };
};

/** The count-in: one bar, struck with sticks. */
const STICKS = 37;
const countIn = (meter: Meter, scale: number, channel: Channel): NoteColumns => {
  const beats = Math.round(barTicks(meter) / beatTicks(meter));
  const out = emptyColumns(beats);
  for (let beat = 0; beat < beats; beat++) {
    out.tick[beat] = Math.round(beat * beatTicks(meter) * scale);
    out.length[beat] = Math.max(1, Math.round((beatTicks(meter) / 4) * scale));
    out.velocity[beat] = beat === 0 ? 110 : 84;
    out.note[beat] = STICKS;
    out.channel[beat] = channel;
  }
  return out;
};

const shifted = (notes: NoteColumns, by: number): NoteColumns => {
  if (by) for (let i = 0; i < notes.size; i++) notes.tick[i]! += by;
  return notes;
};

/** A note comes earlier by the lead of its sound and ends where it did; what would begin before the start begins there. */
const ledBy = (leads: Leads, { plan, range }: Piece, beat: Beat, note: Note): void => {
  const lead = leadAt(leads, beat, note);
  if (!lead) return;
  const { tempos } = plan.timeline;
  const begins = tickAtSeconds(tempos, secondsAt(tempos, note.tick + range.from) - lead) - range.from;
  const tick = Math.max(0, begins);
  note.length += note.tick - tick;
  note.tick = tick;
};

const notesOf = (
  piece: Piece,
  beat: Beat,
  how: ExportHow,
  leads: Leads | null,
): FileNotes & { playing: Set<number>; merged: number } => {
  let merged = 0;
  const playing = new Set<number>();
  function* played(): Generator<Note[], void, void> {
    for (const notes of lanesIn(piece.plan, piece.edges, piece.range, () => (merged += 1))) {
      const at = notes[0]!.lane;
      playing.add(at);
      const channel = channelOf(how, beat.lanes[at]!, at);
      for (const note of notes) {
        note.channel = channel;
        if (leads) ledBy(leads, piece, beat, note);
      }
      yield notes;
    }
  }
  const file = fileNotes(played(), piece.range.to - piece.range.from, how.ppq, piece.edges);
  return { ...file, playing, merged };
};

/**
 * Writes one piece: one file, or one for each lane or group.
 *
 * @param leads how much earlier notes come; left out, they stand where they are heard
 * @example midiOf(piece, beat, HOW_DEFAULTS).files[0]!.notes // 6
 */
export const midiOf = (piece: Piece, beat: Beat, how: ExportHow, leads: Leads | null = null): MidiPiece => {
  const { notes, end, dropped, carried, merged, playing } = notesOf(piece, beat, how, leads);
  const scale = how.ppq / QUARTER;
  const bars = barsOf(piece);
  const shift = how.countIn && bars[0] ? barTicks(bars[0].meter) : 0;
  const counted = shift ? countIn(bars[0]!.meter, scale, how.channel) : null;
  const voices = voicesOf(beat, how, playing);
  // A file of format 0 has one track: what is split then becomes files.
  const apart = how.split !== 'none' && (how.as === 'files' || how.format === 0);
  const filesOf: MidiVoice[][] = apart ? voices.map((voice) => [voice]) : [voices];
  const conductor = conductorOf(piece, beat, how.ppq, shift);
  const by = Math.round(shift * scale);
  const all = { lanes: playing, name: '' };
  const files = filesOf.map((own): WrittenMidi => {
    const tracks = own.map((voice) => ({
      name: voice.name || piece.name,
      notes: shifted(
        ofLanes(notes, (lane) => voice.lanes.has(lane)),
        by,
      ),
    }));
    if (counted && how.format === 0) tracks[0]!.notes = joined(counted, tracks[0]!.notes);
    else if (counted) tracks.unshift({ name: 'Count-in', notes: counted });
    return {
      voice: apart ? own[0]! : all,
      bytes: writeSong({ ...conductor, format: how.format, ppq: how.ppq, tracks, end: end + by }),
      tracks: tracks.length,
      notes: tracks.reduce((sum, track) => sum + track.notes.size, 0) - (counted?.size ?? 0),
    };
  });
  return { files, bars: bars.length, dropped, carried, merged };
};

const joined = (first: NoteColumns, then: NoteColumns): NoteColumns => {
  const out = emptyColumns(first.size + then.size);
  for (const key of ['tick', 'length', 'velocity', 'note', 'channel', 'lane'] as const) {
    out[key].set(first[key]);
    out[key].set(then[key], first.size);
  }
  return out;
};
