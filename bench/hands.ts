/** What players, sticking and the look for a band cost. */
import type { InstrumentId } from '../core/document/instruments';
import { estimateBand } from '../core/analysis/estimateBand';
import { bandRun } from '../core/feel/band';
import { sticking } from '../core/hands/sticking';
import { builtInGrooves } from '../core/groove/library';
import { notesIn } from '../core/play/driver';
import { planPasses } from '../core/play/timelinePlan';
import { felt, grown } from './beats';
import { median, report } from './report';

const timed = (work: () => void): number => {
  const begun = performance.now();
  work();
  return performance.now() - begun;
};
const often = (work: () => void): number => median(Array.from({ length: 7 }, () => timed(work)));

/** Sixteen who all err and follow two others each. */
const PLAYERS = Array.from({ length: 16 }, (_, at) => ({
  id: `p${at}`,
  name: `P${at}`,
  lanes: [],
  clock: 1,
  touch: 2,
  click: 0.1,
  follows: { [`p${(at + 1) % 16}`]: 0.2, [`p${(at + 5) % 16}`]: 0.1 },
}));
/** Ten minutes at 120 BPM. */
const SIXTEENTHS = 10 * 60 * 8;

const players = (): void => {
  const cost = often(() => bandRun([{ from: 0, players: PLAYERS, seed: 7 }]).mean(SIXTEENTHS));
  report('16 players over 10 minutes', `${cost.toFixed(0)} ms`, '300 ms', cost < 300);
};

/** A live window with players against one with spread: what is kept costs nothing more. */
const live = (): void => {
  const beat = felt(grown(16, 4));
  const { band: _, ...plain } = beat.feel.humanize as typeof beat.feel.humanize & { band?: unknown };
  const players16 = PLAYERS.map((one, at) => ({ ...one, lanes: [beat.lanes[at]!.id] }));
  const led = {
    ...beat,
    feel: { ...beat.feel, humanize: { ...plain, band: { on: true, tempo: false, players: players16 } } },
  };
  const cost = (one: typeof beat) => {
    const plan = planPasses(one, one.patterns[0]!, 8);
    notesIn(plan, 0, 1920);
    return often(() => notesIn(plan, 3840, 3840 * 2));
  };
  const [spread, band] = [cost(beat), cost(led)];
  report(
    'a bar of play with 16 players against spread',
    `${(band / spread).toFixed(2)} x (${spread.toFixed(1)} and ${band.toFixed(1)} ms)`,
    '1.2 x',
    band / spread <= 1.2,
  );
};

const hands = (): void => {
  const drums: InstrumentId[] = ['hat.closed', 'snare', 'kick', 'hat.closed', 'tom.low', 'ride'];
  const strokes = Array.from({ length: 10000 }, (_, at) => ({
    ms: at * 110,
    at: at * 240,
    velocity: 60 + ((at * 37) % 60),
    instrument: drums[(at * 7 + (at >> 3)) % drums.length]!,
  }));
  const cost = often(() => sticking(strokes));
  report('sticking of 10,000 strokes', `${cost.toFixed(0)} ms`, '500 ms', cost < 500);
  const run = bandRun([{ from: 0, players: PLAYERS.slice(0, 6), seed: 7 }]);
  const heard = PLAYERS.slice(0, 6).map(({ id }) => Array.from({ length: 4096 }, (_, j) => run.heard(id, j)));
  const found = often(() => estimateBand(heard));
  report('six players told from 4,096 sixteenths', `${found.toFixed(0)} ms`, '3000 ms', found < 3000);
  let all = 0;
  const made = timed(() => (all = builtInGrooves().length));
  report(`all ${all} grooves made playable as they are read`, `${made.toFixed(0)} ms`, 'told', all > 0);
};

players();
live();
hands();
