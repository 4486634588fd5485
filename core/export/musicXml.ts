import { lastAt } from '../numbers';
import { XMLBuilder } from 'fast-xml-parser';
import { feelOf } from '../document/defaults';
import type { Meter } from '../document/meter';
import type { Beat } from '../document/schema';
import { tempoAt } from '../play/tempoMap';
import { QUARTER } from '../units';
import { barsOf } from './midi';
import { DIVISIONS, TYPES, type Sung, sungBeat, durationOf, flags } from './noteValues';
import type { Piece } from './pieces';
import { spelled } from '../make/tunedLane';
import { staffPlace } from './staff';
import { writtenBars, writtenLanes, type PlacedBeat, type WrittenBeat, type WrittenHit } from './written';

/**
 * A drum part as MusicXML 4.0: the drums on one staff, hands with their stems up and feet with theirs down; each lane that
 * plays pitches on a staff of its own below.
 */

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
  /** The place in the beat of the lane that it is for, which plays pitches; null is the drums. */
  tuned: number | null;
  /** Hands are written under the notes. */
  hands: boolean;
}

/** Whether a hit stands on a staff. */
const standsOn =
  ({ beat, tuned }: Staff) =>
  ({ lane }: WrittenHit): boolean =>
    tuned === null ? !beat.lanes[lane]!.tuning : lane === tuned;

const noteHead = ({ beat, tuned }: Staff, { lane, velocity }: WrittenHit): Element[] => {
  const head = tuned === null ? staffPlace(beat.lanes[lane]!.instrument).head : 'normal';
  const ghost = velocity <= GHOST;
  if (head === 'normal' && !ghost) return [];
  return [el('notehead', head, ghost ? { '@_parentheses': 'yes' } : undefined)];
};

const placeOf = ({ beat, tuned }: Staff, { lane, pitch }: WrittenHit): Element => {
  if (tuned !== null) {
    const own = beat.lanes[lane]!;
    const { step, alter, octave } = spelled(own, Math.max(0, Math.min(127, own.note + pitch)));
    return el('pitch', [el('step', step), ...(alter ? [el('alter', alter)] : []), el('octave', octave)]);
  }
  const { step, octave } = staffPlace(beat.lanes[lane]!.instrument);
  return el('unpitched', [el('display-step', step), el('display-octave', octave)]);
};

const instrumentId = ({ partId }: Staff, lane: number): string => `${partId}-I${lane + 1}`;

const graceNotes = (staff: Staff, hit: WrittenHit, voice: number): Element[] =>
  Array.from({ length: hit.grace }, () =>
    el('note', [
      el('grace', [], { '@_slash': hit.grace === 1 ? 'yes' : 'no' }),
      placeOf(staff, hit),
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

/** Which hands play, under the staff, where every notation program shows it. */
const lyricOf = (hits: WrittenHit[]): Element[] => {
  const hands = [...new Set(hits.flatMap(({ hand }) => hand ?? []))].sort().reverse().join('');
  return hands ? [el('lyric', [el('syllabic', 'single'), el('text', hands)], { '@_number': '1' })] : [];
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
      placeOf(staff, hit),
      el('duration', duration),
      el('instrument', [], { '@_id': instrumentId(staff, hit.lane) }),
      el('voice', voice),
      ...typeAndTime(sung),
      el('stem', voice % 2 ? 'up' : 'down'),
      ...noteHead(staff, hit),
      ...(at ? [] : beams),
      ...notationsOf(hit, at ? null : tuplet),
      ...(at || !staff.hands ? [] : lyricOf(sung.hits)),
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

/** Where most of a tuned lane's notes stand in the staff: middle C parts high from low. */
const clefOf = ({ beat, tuned }: Staff): Element => {
  const lane = tuned === null ? null : beat.lanes[tuned]!;
  if (!lane?.tuning) return el('clef', [el('sign', 'percussion'), el('line', 2)]);
  const high = (lane.tuning.low + lane.tuning.high) / 2 >= 57;
  return el('clef', [el('sign', high ? 'G' : 'F'), el('line', high ? 2 : 4)]);
};

const attributesOf = (staff: Staff, meter: Meter, first: boolean): Element =>
  el('attributes', [
    ...(first ? [el('divisions', DIVISIONS)] : []),
    ...(first ? [el('key', [el('fifths', 0)])] : []),
    el('time', [el('beats', meter.beats), el('beat-type', meter.unit)]),
    ...(first ? [clefOf(staff)] : []),
  ]);

/** The marks side by side above the staff. */
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
  const bars = writtenBars(piece, staff.hands);
  const marks = marksOf(piece);
  const mine = standsOn(staff);
  const isFoot = ({ lane }: WrittenHit) =>
    staff.tuned === null && staffPlace(staff.beat.lanes[lane]!.instrument).foot;
  return bars.map(({ meter, beats }, at) => {
    const hands = voicesOf(staff, meter, beats, HANDS, (hit) => mine(hit) && !isFoot(hit));
    const feet = voicesOf(staff, meter, beats, FEET, (hit) => mine(hit) && isFoot(hit));
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
        ...(sameMeter(bars[at - 1]?.meter, meter) ? [] : [attributesOf(staff, meter, at === 0)]),
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

type WrittenLanes = ReturnType<typeof writtenLanes>;

/** The name of a staff, and its instruments. */
const partOf = (staff: Staff, lanes: WrittenLanes): Element => {
  const own = lanes.filter(({ lane, at }) => (staff.tuned === null ? !lane.tuning : at === staff.tuned));
  return el(
    'score-part',
    [
      el('part-name', staff.tuned === null ? 'Drums' : staff.beat.lanes[staff.tuned]!.name),
      ...own.map(({ lane, at }) =>
        el('score-instrument', [el('instrument-name', lane.name)], { '@_id': instrumentId(staff, at) }),
      ),
      ...own.map(({ lane, at }) =>
        el(
          'midi-instrument',
          [
            el('midi-channel', lane.channel),
            ...(staff.tuned === null ? [el('midi-unpitched', lane.note + 1)] : []),
          ],
          { '@_id': instrumentId(staff, at) },
        ),
      ),
    ],
    { '@_id': staff.partId },
  );
};

const HEAD = `<?xml version="1.0" encoding="UTF-8"?>
<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">
`;

/**
 * A piece as a drum part in MusicXML 4.0: hits on their steps, ghost notes in brackets, accents, flams and rolls as they
 * are written, with the hands that play them if wanted; feel is left out.
 *
 * @example musicXmlOf(piece, beat).startsWith('<?xml') // true
 */
export const musicXmlOf = (piece: Piece, beat: Beat, hands = false): string => {
  const lanes = writtenLanes(piece, beat);
  const staffs: Staff[] = [
    { beat, partId: 'P1', tuned: null, hands },
    ...lanes
      .filter(({ lane }) => lane.tuning)
      .map(({ at }, index) => ({ beat, partId: `P${index + 2}`, tuned: at, hands: false })),
  ];
  const score = el(
    'score-partwise',
    [
      el('work', [el('work-title', `${beat.name}: ${piece.name}`)]),
      el('identification', [el('encoding', [el('software', 'Ruddik')])]),
      el(
        'part-list',
        staffs.map((staff) => partOf(staff, lanes)),
      ),
      ...staffs.map((staff) => el('part', measuresOf(staff, piece), { '@_id': staff.partId })),
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
