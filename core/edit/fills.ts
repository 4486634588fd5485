import { EMPTY_LANE_PATTERN, newHit, lanePatternOf, patternTicks, stepsOf } from '../document/defaults';
import { gridTicks } from '../document/grid';
import { instrument } from '../document/instruments';
import { barTicks, beatTicks } from '../document/meter';
import { MOST } from '../document/choices';
import type { Beat, Hit, Lane, LanePattern, Pattern, Section } from '../document/schema';
import { patternGroove } from '../groove/fromPattern';
import type { Groove } from '../groove/groove';
import { goesText, goesWith, likenessOf } from '../groove/likeness';
import { RUDIMENTS } from '../hands/rudiments';
import { RUDIMENT_DEFAULTS, rudimentParts } from '../make/rudimentMaker';
import { clamp, QUARTER } from '../units';
import { patternOfEntry } from '../play/timeline';

/** A fill that is offered for the end of a section. */
export interface FillOffer {
  id: string;
  name: string;
  /** Its origin, in words. */
  about: string;
  /** How well its feel agrees, 0 to 1; of the section's own pattern it is the same feel. */
  agrees: number;
  source: { kind: 'own'; pattern: Pattern } | { kind: 'groove'; groove: Groove };
}

const SIXTEENTH = gridTicks('1/16');

/** A part's last bar, as a part of one bar. Lanes whose loop is their own are kept as they are. */
const lastBarOf = (pattern: Pattern, part: LanePattern): LanePattern => {
  if (part.steps !== null) return part;
  const steps = barTicks(pattern.meter) / gridTicks(part.grid);
  const from = Math.round(steps * (pattern.bars - 1));
  const hits = part.hits.filter(({ step }) => step >= from && step < stepsOf(part, pattern));
  return { ...part, hits: hits.map((hit) => ({ ...hit, step: hit.step - from })) };
};

const lastBar = (pattern: Pattern, id: string, name: string): Pattern => {
  const { takes: _takes, take: _take, parent: _parent, ...rest } = pattern;
  const parts = Object.entries(pattern.parts).map(
    ([lane, part]) => [lane, lastBarOf(pattern, part)] as const,
  );
  return { ...rest, id, name: name.slice(0, MOST.name), bars: 1, parts: Object.fromEntries(parts) };
};

/** The same without what falls into the end of the bar on some lanes. */
const cleared = (pattern: Pattern, lanes: Lane[], from: number): Pattern => ({
  ...pattern,
  parts: Object.fromEntries(
    Object.entries(pattern.parts).map(([id, part]) => [
      id,
      lanes.some((lane) => lane.id === id)
        ? { ...part, hits: part.hits.filter((hit) => hit.step * gridTicks(part.grid) < from - 1e-6) }
        : part,
    ]),
  ),
});

/** Puts sixteenths on lanes, in order of time; the lane's part is read in sixteenths then. */
const withHits = (pattern: Pattern, laneId: string, hits: Hit[]): Pattern => {
  const part = lanePatternOf(pattern, laneId);
  const scale = gridTicks(part.grid) / SIXTEENTH;
  const kept =
    part.steps === null && Number.isInteger(scale)
      ? part.hits.map((hit) => ({ ...hit, step: hit.step * scale, nudge: hit.nudge * scale }))
      : [];
  const all = [...kept.filter(({ nudge }) => Math.abs(nudge) <= 0.5), ...hits].sort(
    (a, b) => a.step - b.step,
  );
  const own: LanePattern = { ...EMPTY_LANE_PATTERN, hits: all };
  return { ...pattern, parts: { ...pattern.parts, [laneId]: own } };
};

const laneOf = (beat: Beat, ids: string[]): Lane | undefined =>
  ids.flatMap((id) => beat.lanes.filter((lane) => lane.instrument === id))[0];

/** The drums that a run goes down over, from high to low, as far as the beat has them. */
const RUN = [
  'snare',
  'bongo.high',
  'tom.high',
  'conga.open',
  'tom.low',
  'bongo.low',
  'conga.low',
  'tom.floor',
];

const rising = (at: number, count: number): number =>
  clamp(Math.round(58 + (62 * at) / Math.max(1, count - 1)), 1, 127);

/** Lanes that keep time: they make room for a fill. */
const timekeepers = (beat: Beat): Lane[] =>
  beat.lanes.filter((lane) => ['lichen', 'heather'].includes(instrument(lane.instrument).pigment));

type Made = Pick<FillOffer, 'name' | 'about'> & { pattern: Pattern };

const snareRun = (beat: Beat, bar: Pattern, half: number): Made | null => {
  const snare = laneOf(beat, ['snare', 'snare.sideStick', 'clap', 'bongo.high', 'conga.open', 'tambourine']);
  if (!snare) return null;
  const first = Math.round(half / SIXTEENTH);
  const count = Math.round((barTicks(bar.meter) - half) / SIXTEENTH);
  const hits = Array.from({ length: count }, (_, at) => newHit(first + at, rising(at, count)));
  return {
    name: `${snare.name} run`,
    about: 'Sixteenths that rise over the second half',
    pattern: withHits(cleared(bar, [...timekeepers(beat), snare], half), snare.id, hits),
  };
};

const downTheDrums = (beat: Beat, bar: Pattern, half: number): Made | null => {
  const lanes = RUN.flatMap((id) => beat.lanes.filter((lane) => lane.instrument === id));
  if (lanes.length < 2) return null;
  const first = Math.round(half / SIXTEENTH);
  const count = Math.round((barTicks(bar.meter) - half) / SIXTEENTH);
  const each = Math.ceil(count / lanes.length);
  const bare = cleared(bar, [...timekeepers(beat), ...lanes], half);
  const pattern = lanes.reduce((now, lane, at) => {
    const hits = Array.from({ length: Math.max(0, Math.min(each, count - at * each)) }, (_, n) =>
      newHit(first + at * each + n, n === 0 ? 112 : 84),
    );
    return hits.length ? withHits(now, lane.id, hits) : now;
  }, bare);
  return { name: 'Down the drums', about: lanes.map(({ name }) => name).join(', '), pattern };
};

const heldBreath = (beat: Beat, bar: Pattern): Made => {
  const end = barTicks(bar.meter) - beatTicks(bar.meter);
  return {
    name: 'Held breath',
    about: 'The last beat is silent',
    pattern: cleared(bar, beat.lanes, end),
  };
};

/** Rudiments that are offered as fills: where what they are laid on is played, and what falls elsewhere. */
const RUDIMENT_FILLS: { rudiment: string; about: string }[] = [
  { rudiment: 'single-paradiddle', about: 'Paradiddles, accents down the drums' },
  { rudiment: 'six-stroke-roll', about: 'Six stroke rolls, accents down the drums' },
  { rudiment: 'flam-accent', about: 'Flam accents in triplets' },
];
/** Where accents go first. */
const ACCENTS = ['tom.high', 'tom.low', 'tom.floor', 'conga.open', 'bongo.high', 'timbale.high'];

const rudimentFill = (beat: Beat, bar: Pattern, half: number, at: number): Made | null => {
  const { rudiment: id, about } = RUDIMENT_FILLS[at]!;
  const rudiment = RUDIMENTS.find((one) => one.id === id)!;
  const snare = laneOf(beat, ['snare', 'snare.sideStick', 'bongo.high', 'conga.open']);
  if (!snare) return null;
  const accents = laneOf(
    beat,
    ACCENTS.filter((drum) => drum !== snare.instrument),
  );
  const bare = cleared(bar, [...timekeepers(beat), snare, ...(accents ? [accents] : [])], half);
  const parts = rudimentParts(bare, snare.id, {
    ...RUDIMENT_DEFAULTS,
    rudiment: id,
    grid: rudiment.grid,
    from: half / QUARTER,
    accents: accents?.id ?? '',
  });
  return { name: rudiment.name, about, pattern: { ...bare, parts: { ...bare.parts, ...parts } } };
};

/** The last beat is what its first half was, twice. */
const twice = (beat: Beat, bar: Pattern): Made => {
  const length = beatTicks(bar.meter);
  const begin = barTicks(bar.meter) - length;
  const parts = Object.entries(bar.parts).map(([id, part]) => {
    const g = gridTicks(part.grid);
    const inside = part.hits.filter(
      ({ step }) => step * g >= begin - 1e-6 && step * g < begin + length / 2 - 1e-6,
    );
    const again = inside.map((hit) => ({ ...hit, step: hit.step + Math.round(length / 2 / g) }));
    const before = part.hits.filter(({ step }) => step * g < begin - 1e-6);
    return [id, part.steps === null ? { ...part, hits: [...before, ...inside, ...again] } : part] as const;
  });
  return {
    name: 'Twice the half beat',
    about: `The first half of the last beat comes twice, on ${beat.lanes.length} lanes`,
    pattern: { ...bar, parts: Object.fromEntries(parts) },
  };
};

const ownFills = (beat: Beat, pattern: Pattern): FillOffer[] => {
  const bar = lastBar(pattern, 'fill', 'Fill');
  const half = Math.max(0, barTicks(bar.meter) - 2 * beatTicks(bar.meter));
  const made = [
    snareRun(beat, bar, half),
    downTheDrums(beat, bar, half),
    ...RUDIMENT_FILLS.map((_, at) => rudimentFill(beat, bar, half, at)),
    twice(beat, bar),
    heldBreath(beat, bar),
  ];
  return made
    .filter((one) => one !== null)
    .map(({ name, about, pattern: filled }) => ({
      id: `own/${name}`,
      name,
      about,
      agrees: 1,
      source: { kind: 'own', pattern: { ...filled, name: `${name} of ${pattern.name}`.slice(0, MOST.name) } },
    }));
};

const MOST_FROM_LIBRARY = 6;

const libraryFills = (beat: Beat, pattern: Pattern, library: Groove[]): FillOffer[] => {
  const own = likenessOf(patternGroove(beat, pattern));
  const bar = barTicks(pattern.meter);
  return library
    .filter((groove) => groove.kind === 'fill' && barTicks(groove.meter) === bar)
    .map((groove) => ({ groove, agrees: goesWith(own, likenessOf(groove)) }))
    .sort((a, b) => b.agrees - a.agrees || a.groove.name.localeCompare(b.groove.name))
    .slice(0, MOST_FROM_LIBRARY)
    .map(({ groove, agrees }) => ({
      id: groove.id,
      name: groove.name,
      about: `${groove.style}, ${goesText(agrees)}`,
      agrees,
      source: { kind: 'groove', groove },
    }));
};

/**
 * Fills for the end of a section: made of its own last pattern, then those of the library in the same meter whose feel
 * agrees best. A section without a pattern gets none.
 */
export const fillsFor = (beat: Beat, section: Section, library: Groove[]): FillOffer[] => {
  const last = section.entries[section.entries.length - 1];
  const pattern = last ? patternOfEntry(beat, last) : null;
  if (!pattern || patternTicks(pattern) <= 0) return [];
  return [...ownFills(beat, pattern), ...libraryFills(beat, pattern, library)];
};
