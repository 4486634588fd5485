import { modulo } from '../../numbers';
import { drumGroupOfNote } from '../../document/drumGroups';
import type { Feel, LaneFeel } from '../../document/feelSchema';
import { prepareFeel, sharedPinks, type LaneFeelPlan } from '../../feel/prepareFeel';
import { beforeStagger, inCountingOrder, staggerDelay, staggerTicks } from '../../feel/stagger';
import type { Pinks } from '../../feel/stage';
import { feelStrokes } from '../../feel/feelStrokes';
import type { FeltStroke } from '../../feel/struck';
import { draw, hashText, PURPOSE } from '../../random/draw';
import { bandAlone, type PlacedBand } from '../../feel/bandAt';
import { followingTempos, throughTempo } from '../../play/bandTempo';
import type { TempoMap } from '../../play/tempoMap';
import { clamp, QUARTER, type MidiNote, type Ms, type Ticks } from '../../units';
import { laneOfNote, wholeBars, type MidiFile, type ReadNote } from '../read/midiFile';
import { rewritten, toldApart, type Placed } from '../write/rewritten';

/** The changes to a file's notes. */
export interface FeelFileOptions {
  /** Its `lanes` are left empty: what lanes have of their own is given by note. */
  feel: Feel;
  /** In ms, by note number. */
  offsets: ReadonlyMap<MidiNote, Ms>;
  /** Other properties of notes, by note number. */
  own?: ReadonlyMap<MidiNote, LaneFeel>;
  /** The note numbers that a stagger is for; left out, all. */
  staggered?: ReadonlySet<MidiNote>;
  /** A note before the beginning comes in at the end of the file's whole bars; otherwise it is held at 0. */
  wrap: boolean;
}

/** The outcome. */
export interface FeltFile {
  bytes: Uint8Array;
  notes: number;
  /** How many stand elsewhere than before, in ticks of the file. */
  moved: number;
  /** How many became one with a louder one less than 1 ms away. */
  merged: number;
  /** How many found no tick of their own before the end of the loop. */
  dropped: number;
  /** How many would have started before the beginning, or past the end of a loop. */
  carried: number;
}

interface FileStroke extends FeltStroke {
  of: ReadNote;
}

/** The step that a note of a file counts as, for what is drawn at random. */
const CELL: Ticks = 60;

const strokesOf = (notes: ReadNote[], scale: number): FileStroke[] => {
  const sorted = [...notes].sort((a, b) => a.start - b.start);
  let [cell, hitIndex] = [-1, 0];
  return sorted.map((of) => {
    const at = of.start * scale;
    const step = Math.floor(at / CELL);
    hitIndex = step === cell ? hitIndex + 1 : 0;
    cell = step;
    return {
      of,
      at,
      velocity: of.velocity,
      tick: at,
      force: of.velocity,
      tie: null,
      lead: null,
      pitch: 0,
      delay: -0,
      otherDelay: -0,
      cycle: 0,
      step,
      hitIndex,
      kind: 'main',
      stroke: 0,
      sounds: true,
      gridTick: at,
      into: null,
      moved: 0,
    };
  });
};

interface Counts {
  merged: number;
  dropped: number;
  carried: number;
}

/** A lane of a file with its feel made ready. */
interface FileLane {
  notes: ReadNote[];
  strokes: FileStroke[];
  stages: LaneFeelPlan;
  key: number;
}

const laneFeelOf = (note: MidiNote, { offsets, own }: FeelFileOptions): Record<string, LaneFeel> => {
  const offset = offsets.get(note);
  const mine = own?.get(note);
  return offset === undefined && !mine
    ? {}
    : { [note]: { ...mine, ...(offset !== undefined && { offset }) } };
};

/** The players of a file, and the tempo that follows them; null where it has none. */
interface FileBand {
  placed: PlacedBand | null;
  tempos: TempoMap | null;
}

const bandIn = (file: MidiFile, { feel }: FeelFileOptions): FileBand => {
  const placed = bandAlone(feel, null);
  if (!placed?.band.tempo) return { placed, tempos: null };
  const tempos = followingTempos(file.tempos, placed.run.mean, wholeBars(file));
  return { placed: { ...placed, through: throughTempo(file.tempos, tempos) }, tempos };
};

/** One lane made ready. */
const laneOf = (
  file: MidiFile,
  notes: ReadNote[],
  options: FeelFileOptions,
  { placed }: FileBand,
  pinks: Pinks,
): FileLane => {
  const { feel, staggered } = options;
  const strokes = strokesOf(notes, QUARTER / file.ppq);
  const first = notes[0]!;
  const key = hashText(laneOfNote(first));
  const { stagger, ...rest } = feel;
  const waits = stagger && (!staggered || staggered.has(first.note));
  const stages = prepareFeel(
    { ...rest, ...(waits && { stagger }), lanes: laneFeelOf(first.note, options) },
    {
      id: String(first.note),
      key,
      band: () => placed,
      grid: '1/16',
      group: drumGroupOfNote(first.note),
      random: 2,
      bars: file.bars,
      ticksPerMs: file.ticksPerMs,
      mean: notes.reduce((sum, { velocity }) => sum + velocity, 0) / notes.length,
      pass: Infinity,
      pinks,
    },
  );
  return { notes, strokes, stages, key };
};

/** Says of the strokes of all lanes that a stagger is for by how much it holds each back, counted from the file's start. */
const holdBack = (lanes: FileLane[], { feel }: FeelFileOptions): void => {
  const { stagger, humanize } = feel;
  if (!stagger) return;
  const counted = lanes
    .filter(({ stages }) => stages.a.ready.stagger)
    .flatMap(({ strokes, stages, key }) =>
      strokes.map((stroke) => {
        const at = beforeStagger(stages.a, stroke.at);
        const perMs = stages.a.ticksPerMs(at);
        const u = draw(humanize.seed, key, 0, stroke.step, stroke.hitIndex, 0, PURPOSE.stagger);
        const random = staggerTicks(stagger, stagger.random * u, perMs);
        return { stroke, perMs, random, note: stroke.of.note, tick: at + (stagger.randomFirst ? random : 0) };
      }),
    );
  inCountingOrder(counted, ({ note }) => note).forEach(({ stroke, perMs, random }, c) => {
    stroke.delay = staggerTicks(stagger, staggerDelay(stagger, c), perMs) + random;
  });
};

/** The notes of one lane where they sound, in ticks of the file, before they are told apart. */
const laneNotes = (
  file: MidiFile,
  { strokes, stages }: FileLane,
  { wrap }: FeelFileOptions,
  total: number,
  counts: Counts,
): Placed[] => {
  const scale = QUARTER / file.ppq;
  feelStrokes(stages, strokes);
  const out: Placed[] = [];
  for (const { of, tick, force, into } of strokes) {
    if (into) {
      counts.merged += 1;
      continue;
    }
    const wanted = Math.round(tick / scale);
    const start = wrap ? modulo(wanted, total) : Math.max(0, wanted);
    if (start !== wanted) counts.carried += 1;
    const velocity = clamp(Math.round(force), 1, 127);
    out.push({ of, start, end: start + of.end - of.start, velocity, note: of.note });
  }
  return out.sort((a, b) => a.start - b.start);
};

/**
 * Gives a file's notes a feel. A lane is one channel and number, over all tracks. Everything else in the file stays as it
 * was, but for a tempo that is to follow the players: tempo, texts, controllers, division, format, order of tracks; a track ends later only where a note needs it.
 */
export const feelFile = (file: MidiFile, options: FeelFileOptions): FeltFile => {
  const lanes = new Map<string, ReadNote[]>();
  for (const note of file.notes) {
    const key = laneOfNote(note);
    const list = lanes.get(key);
    if (list) list.push(note);
    else lanes.set(key, [note]);
  }
  const counts: Counts = { merged: 0, dropped: 0, carried: 0 };
  const total = options.wrap ? Math.round((wholeBars(file) * file.ppq) / QUARTER) : Infinity;
  const placed: Placed[] = [];
  let moved = 0;
  const pinks = sharedPinks();
  const band = bandIn(file, options);
  const ready = [...lanes.values()].map((notes) => laneOf(file, notes, options, band, pinks));
  holdBack(ready, options);
  for (const lane of ready)
    for (const note of toldApart(laneNotes(file, lane, options, total, counts), total, counts)) {
      placed.push(note);
      if (note.start !== note.of.start) moved += 1;
    }
  const tempos = band.tempos?.ticks.map((tick, at) => ({
    tick: Math.round((tick * file.ppq) / QUARTER),
    micros: band.tempos!.micros[at]!,
  }));
  return { bytes: rewritten(file, placed, tempos ?? null), notes: placed.length, moved, ...counts };
};
