import { lastAt } from '../numbers';
import { XMLBuilder } from 'fast-xml-parser';
import { feelOf } from '../document/defaults';
import { isCompound, type Meter } from '../document/meter';
import type { Beat } from '../document/schema';
import { tempoAt } from '../play/tempoMap';
import { QUARTER } from '../units';
import { barsOf } from './midi';
import type { Piece } from './pieces';
import { staffPlace } from './staff';
import { writtenBars, writtenLanes, type PlacedBeat, type WrittenBeat, type WrittenHit } from './written';

/** A drum part as MusicXML 4.0: one staff, hands with their stems up and feet with theirs down. */

type Element = Record<string, unknown>;

/** A text without the signs that XML has no place for: controls and halves of pairs. */
const wellFormed = (text: string): string =>
  // eslint-disable-next-line no-control-regex
  text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|\p{Surrogate}/gu, '');

/** An element with what is in it, in order. */
const el = (
  name: string,
  inside: Element[] | string | number = [],
  attributes?: Record<string, string>,
): Element => ({
  [name]: Array.isArray(inside) ? inside : [{ '#text': wellFormed(String(inside)) }],
  ...(attributes && { ':@': attributes }),
});

/** Parts of a quarter note: what every division of every beat is a whole number of. */
const DIVISIONS = 480;
const TYPES = ['whole', 'half', 'quarter', 'eighth', '16th', '32nd', '64th', '128th', '256th'] as const;

/** How a number of parts of a beat is written. */
interface Shape {
  /** Which of the types. */
  type: number;
  dots: 0 | 1;
  parts: number;
}

/** What one part of a divided beat is, and how many stand in the time of how many. */
interface Division {
  unit: { type: number; dots: 0 | 1 };
  tuplet: { actual: number; normal: number } | null;
}

/** The type of a beat's written unit: a quarter in 4/4, an eighth in 7/8. */
const typeOf = (meter: Meter): number => Math.round(Math.log2(meter.unit));

/** So many in the time of so many, by the parts of a beat: of a plain beat, and of one of three. */
const SIMPLE_TUPLETS: Record<number, { actual: number; normal: number } | undefined> = {
  3: { actual: 3, normal: 2 },
  5: { actual: 5, normal: 4 },
  6: { actual: 6, normal: 4 },
  12: { actual: 12, normal: 8 },
  20: { actual: 20, normal: 16 },
  24: { actual: 24, normal: 16 },
};
const COMPOUND_TUPLETS: typeof SIMPLE_TUPLETS = {
  9: { actual: 9, normal: 6 },
  15: { actual: 15, normal: 12 },
  18: { actual: 18, normal: 12 },
};

const tupletOf = (type: number, tuplet: { actual: number; normal: number }): Division => ({
  unit: { type, dots: 0 },
  tuplet,
});

const divisionOf = (meter: Meter, parts: number): Division => {
  const plain = (type: number, dots: 0 | 1 = 0): Division => ({ unit: { type, dots }, tuplet: null });
  if (isCompound(meter)) {
    if (parts === 1) return plain(2, 1);
    if (parts === 2 || parts === 4) return plain(2 + Math.log2(parts), 1);
    const uneven = COMPOUND_TUPLETS[parts];
    if (uneven) return tupletOf(3 + Math.log2(uneven.normal / 3), uneven);
    return plain(3 + Math.log2(parts / 3));
  }
  const beat = typeOf(meter);
  const uneven = SIMPLE_TUPLETS[parts];
  if (uneven) return tupletOf(beat + Math.log2(uneven.normal), uneven);
  return plain(beat + Math.log2(parts));
};

/** The longest that can be written as one note or rest, not longer than asked for. */
const shapeOf = ({ unit }: Division, parts: number): Shape => {
  const whole = Math.floor(Math.log2(parts));
  const dotted = unit.dots === 0 && parts >= 3 ? Math.floor(Math.log2(parts / 3)) : -1;
  const plain = 2 ** whole;
  const long = dotted >= 0 ? 3 * 2 ** dotted : 0;
  if (long > plain) return { type: unit.type - dotted - 1, dots: 1, parts: long };
  return { type: unit.type - whole, dots: unit.dots, parts: plain };
};

/** One note, chord or rest of a voice. */
interface Sung {
  shape: Shape;
  hits: WrittenHit[];
  beat: WrittenBeat;
  division: Division;
}

const restsFor = (beat: WrittenBeat, division: Division, parts: number): Sung[] => {
  const out: Sung[] = [];
  for (let left = parts; left > 0;) {
    const shape = shapeOf(division, left);
    out.push({ shape, hits: [], beat, division });
    left -= shape.parts;
  }
  return out;
};

/** What one voice has in a beat: each note until the next, rests where nothing is. */
const sungBeat = (meter: Meter, beat: WrittenBeat): Sung[] => {
  const { onsets, parts } = beat;
  const division = divisionOf(meter, parts);
  if (!onsets.length) return restsFor(beat, division, parts);
  const out = restsFor(beat, division, onsets[0]!.at);
  onsets.forEach(({ at, hits }, index) => {
    const until = onsets[index + 1]?.at ?? parts;
    const shape = shapeOf(division, until - at);
    out.push({ shape, hits, beat, division }, ...restsFor(beat, division, until - at - shape.parts));
  });
  return out;
};

/** Into how many parts the beat is divided for a note: less finely than for another where that one needs it. */
const partsOf = (beat: WrittenBeat, { unit, tuplet }: Division): number =>
  tuplet?.actual ?? Math.round(beat.length / (2 ** (2 - unit.type) * (unit.dots ? 1.5 : 1) * QUARTER));

const durationOf = ({ shape, beat, division }: Sung): number =>
  Math.round((shape.parts * beat.length * DIVISIONS) / QUARTER / partsOf(beat, division));

const flags = ({ shape }: Sung): number => Math.max(0, shape.type - 2);

/** Beams of one beat: level by level, runs of notes that have so many flags. */
const beamsOf = (sung: Sung[]): Element[][] => {
  const out: Element[][] = sung.map(() => []);
  const beamed = (at: number, level: number) =>
    at >= 0 && at < sung.length && sung[at]!.hits.length > 0 && flags(sung[at]!) >= level;
  for (let level = 1; level <= 4; level++)
    sung.forEach((_, at) => {
      if (!beamed(at, level)) return;
      const [before, after] = [beamed(at - 1, level), beamed(at + 1, level)];
      const joined = beamed(at - 1, 1) || beamed(at + 1, 1);
      if (!joined) return;
      const word =
        before && after
          ? 'continue'
          : before
            ? 'end'
            : after
              ? 'begin'
              : beamed(at - 1, 1)
                ? 'backward hook'
                : 'forward hook';
      out[at]!.push(el('beam', word, { '@_number': String(level) }));
    });
  return out;
};

const GHOST = 52;
const ACCENT = 108;

interface Staff {
  beat: Beat;
  partId: string;
}

const noteHead = ({ beat }: Staff, { lane, velocity }: WrittenHit): Element[] => {
  const { head } = staffPlace(beat.lanes[lane]!.instrument);
  const ghost = velocity <= GHOST;
  if (head === 'normal' && !ghost) return [];
  return [el('notehead', head, ghost ? { '@_parentheses': 'yes' } : undefined)];
};

const unpitched = ({ beat }: Staff, { lane }: WrittenHit): Element => {
  const { step, octave } = staffPlace(beat.lanes[lane]!.instrument);
  return el('unpitched', [el('display-step', step), el('display-octave', octave)]);
};

const instrumentId = ({ partId }: Staff, lane: number): string => `${partId}-I${lane + 1}`;

const graceNotes = (staff: Staff, hit: WrittenHit, voice: number): Element[] =>
  Array.from({ length: hit.grace }, () =>
    el('note', [
      el('grace', [], { '@_slash': hit.grace === 1 ? 'yes' : 'no' }),
      unpitched(staff, hit),
      el('instrument', [], { '@_id': instrumentId(staff, hit.lane) }),
      el('voice', voice),
      el('type', hit.grace === 1 ? 'eighth' : '16th'),
      el('stem', voice % 2 ? 'up' : 'down'),
      ...noteHead(staff, hit),
    ]),
  );

const typeAndTime = ({ shape, division }: Sung): Element[] => [
  el('type', TYPES[shape.type]!),
  ...(shape.dots ? [el('dot')] : []),
  ...(division.tuplet
    ? [
        el('time-modification', [
          el('actual-notes', division.tuplet.actual),
          el('normal-notes', division.tuplet.normal),
        ]),
      ]
    : []),
];

const notationsOf = (hit: WrittenHit | null, tuplet: 'start' | 'stop' | null): Element[] => {
  const inside = [
    ...(tuplet ? [el('tuplet', [], { '@_type': tuplet })] : []),
    ...(hit?.roll ? [el('ornaments', [el('tremolo', 3, { '@_type': 'single' })])] : []),
    ...(hit && hit.velocity >= ACCENT ? [el('articulations', [el('accent')])] : []),
  ];
  return inside.length ? [el('notations', inside)] : [];
};

const chordOf = (
  staff: Staff,
  sung: Sung,
  voice: number,
  beams: Element[],
  tuplet: 'start' | 'stop' | null,
) => {
  const duration = durationOf(sung);
  if (!sung.hits.length)
    return [
      el('note', [
        el('rest'),
        el('duration', duration),
        el('voice', voice),
        ...typeAndTime(sung),
        ...notationsOf(null, tuplet),
      ]),
    ];
  const graces = sung.hits.flatMap((hit) => (hit.grace ? graceNotes(staff, hit, voice) : []));
  const notes = sung.hits.map((hit, at) =>
    el('note', [
      ...(at ? [el('chord')] : []),
      unpitched(staff, hit),
      el('duration', duration),
      el('instrument', [], { '@_id': instrumentId(staff, hit.lane) }),
      el('voice', voice),
      ...typeAndTime(sung),
      el('stem', voice % 2 ? 'up' : 'down'),
      ...noteHead(staff, hit),
      ...(at ? [] : beams),
      ...notationsOf(hit, at ? null : tuplet),
    ]),
  );
  return [...graces, ...notes];
};

const ticksAsDuration = (length: number): number => Math.round((length * DIVISIONS) / QUARTER);

/** A voice beat by beat. Where it has nothing, a first voice rests; one that only helps out is passed over. */
const voiceOf = (
  staff: Staff,
  meter: Meter,
  beats: { length: number; row: WrittenBeat | undefined }[],
  voice: number,
  helping: boolean,
): Element[] =>
  beats.flatMap(({ length, row }) => {
    if (!row && helping)
      return [el('forward', [el('duration', ticksAsDuration(length)), el('voice', voice)])];
    const sung = sungBeat(meter, row ?? { parts: 1, length, onsets: [] });
    const beams = beamsOf(sung);
    return sung.flatMap((one, at) => {
      const tuplet = !one.division.tuplet
        ? null
        : at === 0
          ? 'start'
          : at === sung.length - 1
            ? 'stop'
            : null;
      return chordOf(staff, one, voice, beams[at]!, tuplet);
    });
  });

/**
 * The voices of a bar's hands or feet. One, as a rule; where lanes divide a beat against one another, each division has
 * a voice of its own.
 */
const voicesOf = (
  staff: Staff,
  meter: Meter,
  beats: PlacedBeat[],
  first: number,
  mine: (hit: WrittenHit) => boolean,
): Element[][] => {
  const rows = beats.map((beat) => beat.rows(mine));
  const count = Math.max(0, ...rows.map(({ length }) => length));
  return Array.from({ length: count }, (_, at) =>
    voiceOf(
      staff,
      meter,
      beats.map(({ length }, beat) => ({ length, row: rows[beat]![at] })),
      first + 2 * at,
      at > 0,
    ),
  );
};

const measureTicks = ({ beats, unit }: Meter): number => (beats * DIVISIONS * 4) / unit;

const attributesOf = (meter: Meter, first: boolean): Element =>
  el('attributes', [
    ...(first ? [el('divisions', DIVISIONS)] : []),
    ...(first ? [el('key', [el('fifths', 0)])] : []),
    el('time', [el('beats', meter.beats), el('beat-type', meter.unit)]),
    ...(first ? [el('clef', [el('sign', 'percussion'), el('line', 2)])] : []),
  ]);

/** What stands side by side above the staff. */
const direction = (marks: Element[], sound?: Record<string, string>): Element =>
  el(
    'direction',
    [...marks.map((mark) => el('direction-type', [mark])), ...(sound ? [el('sound', [], sound)] : [])],
    { '@_placement': 'above' },
  );

const tempoMark = (bpm: number, words: Element[]): Element => {
  const shown = Math.round(bpm * 100) / 100;
  const metronome = el('metronome', [el('beat-unit', 'quarter'), el('per-minute', shown)]);
  return direction([metronome, ...words], { '@_tempo': String(shown) });
};

/** Swing is a matter of playing: it is said, not drawn. */
const swingMark = (piece: Piece, beat: Beat): Element[] => {
  const pattern = piece.plan.timeline.regions[0]?.pattern;
  const feel = pattern && feelOf(beat, pattern);
  if (!feel || feel.base !== 'swing' || feel.off.includes('base') || feel.swing.percent === 50) return [];
  const notes = feel.swing.grid === '1/8' ? 'eighths' : 'sixteenths';
  return [el('words', `${notes} swung ${Math.round(feel.swing.percent)} %`)];
};

interface Marks {
  rehearsal: Map<number, string>;
  tempo: Map<number, number>;
}

/** Names of sections and new tempos, by the bar that they stand over. */
const marksOf = (piece: Piece): Marks => {
  const { timeline } = piece.plan;
  const starts = barsOf(piece).map(({ from }) => from + piece.range.from);
  const marks: Marks = { rehearsal: new Map(), tempo: new Map() };
  let last = NaN;
  starts.forEach((from, bar) => {
    const span =
      timeline.spans[
        lastAt(
          timeline.spans.map((one) => one.from),
          from,
        )
      ];
    if (span?.section && Math.abs(span.from - from) < 1e-6) marks.rehearsal.set(bar, span.section.name);
    const bpm = Math.round(tempoAt(timeline.tempos, from) * 100) / 100;
    if (bpm !== last) marks.tempo.set(bar, bpm);
    last = bpm;
  });
  return marks;
};

/** The numbers of their first voices: odd ones are hands, even ones feet. */
const HANDS = 1;
const FEET = 2;

const sameMeter = (a: Meter | undefined, b: Meter): boolean => a?.beats === b.beats && a.unit === b.unit;

const measuresOf = (staff: Staff, piece: Piece): Element[] => {
  const bars = writtenBars(piece);
  const marks = marksOf(piece);
  const isFoot = ({ lane }: WrittenHit) => staffPlace(staff.beat.lanes[lane]!.instrument).foot;
  return bars.map(({ meter, beats }, at) => {
    const hands = voicesOf(staff, meter, beats, HANDS, (hit) => !isFoot(hit));
    const feet = voicesOf(staff, meter, beats, FEET, isFoot);
    const wholeRest = el('note', [
      el('rest', [], { '@_measure': 'yes' }),
      el('duration', measureTicks(meter)),
      el('voice', 1),
    ]);
    const rehearsal = marks.rehearsal.get(at);
    const tempo = marks.tempo.get(at);
    return el(
      'measure',
      [
        ...(sameMeter(bars[at - 1]?.meter, meter) ? [] : [attributesOf(meter, at === 0)]),
        ...(rehearsal ? [direction([el('rehearsal', rehearsal)])] : []),
        ...(tempo === undefined ? [] : [tempoMark(tempo, at === 0 ? swingMark(piece, staff.beat) : [])]),
        ...[...(hands.length ? hands : [[wholeRest]]), ...feet].flatMap((voice, index) =>
          index ? [el('backup', [el('duration', measureTicks(meter))]), ...voice] : voice,
        ),
      ],
      { '@_number': String(at + 1) },
    );
  });
};

const HEAD = `<?xml version="1.0" encoding="UTF-8"?>
<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">
`;

/**
 * A piece as a drum part in MusicXML 4.0: hits on their steps, ghost notes in brackets, accents, flams and rolls as they
 * are written; feel and stickings left out.
 *
 * @example musicXmlOf(piece, beat).startsWith('<?xml') // true
 */
export const musicXmlOf = (piece: Piece, beat: Beat): string => {
  const staff: Staff = { beat, partId: 'P1' };
  const lanes = writtenLanes(piece, beat);
  const score = el(
    'score-partwise',
    [
      el('work', [el('work-title', `${beat.name}: ${piece.name}`)]),
      el('identification', [el('encoding', [el('software', 'Ruddik')])]),
      el('part-list', [
        el(
          'score-part',
          [
            el('part-name', 'Drums'),
            ...lanes.map(({ lane, at }) =>
              el('score-instrument', [el('instrument-name', lane.name)], { '@_id': instrumentId(staff, at) }),
            ),
            ...lanes.map(({ lane, at }) =>
              el('midi-instrument', [el('midi-channel', lane.channel), el('midi-unpitched', lane.note + 1)], {
                '@_id': instrumentId(staff, at),
              }),
            ),
          ],
          { '@_id': staff.partId },
        ),
      ]),
      el('part', measuresOf(staff, piece), { '@_id': staff.partId }),
    ],
    { '@_version': '4.0' },
  );
  const builder = new XMLBuilder({
    preserveOrder: true,
    ignoreAttributes: false,
    attributeNamePrefix: '@_',
    format: true,
    indentBy: ' ',
    suppressEmptyNode: true,
  });
  return `${HEAD}${(builder.build([score]) as string).trim()}\n`;
};
