import { mean } from '../analysis/statistics';
import { inOrder, placed, positionOf } from '../document/position';
import { INSTRUMENTS, type InstrumentId } from '../document/instruments';
import { gridTicks } from '../document/grid';
import type { Hit } from '../document/schema';
import { clamp } from '../units';
import { type Groove, type GrooveLane } from './groove';

/** A place where time can be kept, and what its plain, its accented and its open strokes are played on. */
interface Post {
  plain: InstrumentId;
  /** Ringing strokes: an open hat, a bell. */
  open: InstrumentId | null;
  /** Other instruments that belong to it. */
  also: InstrumentId[];
}

/** Where time can be kept. Opens go over to what rings on the other. */
export const POSTS: Post[] = [
  { plain: 'hat.closed', open: 'hat.open', also: [] },
  { plain: 'ride', open: 'ride.bell', also: [] },
  { plain: 'ride.second', open: 'ride.bell', also: [] },
  { plain: 'tom.floor', open: null, also: [] },
  { plain: 'hat.pedal', open: null, also: [] },
  { plain: 'cowbell', open: null, also: [] },
  { plain: 'shaker', open: null, also: [] },
  { plain: 'tambourine', open: null, also: [] },
  { plain: 'snare', open: null, also: [] },
];

const postOf = (id: InstrumentId): Post =>
  POSTS.find(({ plain, open }) => plain === id || open === id) ?? { plain: id, open: null, also: [] };

/** Where nothing rings, an open stroke is an accent by so much; going back, what is so much louder is open again. */
const RINGING = 1.2;

/** From this velocity on a stroke of the snare is a backbeat, and no timekeeping. */
const BACKBEAT = 75;

const laneOf = (groove: Groove, id: InstrumentId | null): GrooveLane | undefined =>
  groove.lanes.find(({ instrument }) => instrument === id);

const newLane = (from: GrooveLane, instrument: InstrumentId, hits: Hit[]): GrooveLane => ({
  ...from,
  instrument,
  note: INSTRUMENTS[instrument].note,
  part: { ...from.part, hits: inOrder(hits) },
});

/** Hits on the grid of another lane. */
const onGridOf = (lane: GrooveLane, like: GrooveLane): Hit[] => {
  const [from, to] = [lane.part.grid, like.part.grid];
  if (from === to) return lane.part.hits;
  const scale = gridTicks(from) / gridTicks(to);
  return lane.part.hits.map((hit) => ({
    ...hit,
    ...placed(positionOf(hit, from), to),
    length: hit.length === null ? null : hit.length * scale,
  }));
};

const harder = (hit: Hit): Hit => ({ ...hit, velocity: clamp(Math.round(hit.velocity * RINGING), 1, 127) });

/** Joins what two lanes of one instrument play: of two hits on one step the louder stays. */
const joined = (a: Hit[], b: Hit[]): Hit[] => {
  const near = (one: Hit, other: Hit) => Math.abs(one.step + one.nudge - other.step - other.nudge) < 0.25;
  const kept = a.filter((hit) => !b.some((other) => near(hit, other) && other.velocity > hit.velocity));
  return inOrder([...kept, ...b.filter((hit) => !kept.some((other) => near(hit, other)))]);
};

const withLane = (lanes: GrooveLane[], lane: GrooveLane): GrooveLane[] => {
  if (!lane.part.hits.length) return lanes;
  const there = lanes.find(({ instrument }) => instrument === lane.instrument);
  if (!there) return [...lanes, lane];
  const hits = joined(there.part.hits, onGridOf(lane, there));
  return lanes.map((one) => (one === there ? { ...one, part: { ...one.part, hits } } : one));
};

/**
 * The instruments of plain strokes and of ringing ones. Where nothing rang there were accents: those that stand out by
 * far, and are not the rule, ring.
 */
const shared = (plain: Hit[], open: Hit[], from: Post, to: Post): { plain: Hit[]; open: Hit[] } => {
  if (to.open === null) return { plain: joined(plain, open.map(harder)), open: [] };
  if (from.open !== null) return { plain, open };
  const usual = mean(plain.map(({ velocity }) => velocity));
  const rings = (hit: Hit) => hit.velocity > usual * RINGING * 1.1;
  const ringing = plain.filter(rings);
  if (ringing.length > plain.length / 4) return { plain, open: [] };
  return { plain: plain.filter((hit) => !rings(hit)), open: ringing };
};

/**
 * The part that keeps time, played on another instrument: from the hat to the ride, to the floor tom and back. Accents
 * stay accents; what was open rings on the other (the bell of a ride), or is struck harder where nothing rings.
 *
 * @returns the groove as it was where nothing keeps time, or where it is kept there already
 */
export const keepTimeOn = (groove: Groove, to: InstrumentId): Groove => {
  const from = groove.timekeeper && postOf(groove.timekeeper);
  const target = postOf(to);
  const plain = from && laneOf(groove, from.plain);
  if (!from || from.plain === target.plain || !plain) return groove;
  const open = from.open ? laneOf(groove, from.open) : undefined;
  const parts = shared(plain.part.hits, open ? onGridOf(open, plain) : [], from, target);
  // Of a snare that keeps time the backbeat stays where it is, whoever keeps time then.
  const strong = from.plain === 'snare' ? plain.part.hits.filter(({ velocity }) => velocity >= BACKBEAT) : [];
  const stays = strong.length < plain.part.hits.length ? strong : [];
  const others = groove.lanes.filter((lane) => lane !== plain && lane !== open);
  const rest = stays.length ? [...others, newLane(plain, 'snare', stays)] : others;
  const moved = withLane(rest, newLane(plain, target.plain, parts.plain));
  return {
    ...groove,
    timekeeper: target.plain,
    lanes: target.open ? withLane(moved, newLane(plain, target.open, parts.open)) : moved,
  };
};
