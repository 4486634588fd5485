/** What is written against what is scheduled, and what it costs. */
import { patternTicks } from '../core/document/defaults';
import { allNotes } from '../core/play/driver';
import { planLive, planPasses } from '../core/play/timelinePlan';
import { playable } from '../core/play/playable';
import { parseMidi, writeMidi } from 'midi-file';
import { EXPORT_DEFAULTS, exportPattern } from '../core/export/exportPattern.mock';
import { inspectMidi } from '../core/midi/read/inspect';
import { readNotes } from '../core/midi/read/readBack.mock';
import type { Beat } from '../core/document/schema';
import { DEMO_BEATS } from '../demo/beats';
import { change, frameAt, startFeeder, wake, type PlannedNote } from '../src/audio/feeder';
import { steadyBars } from '../core/feel/bars';
import { reportFeel } from '../core/analysis/measure';
import { ticksPerMs } from '../core/units';
import { felt, grown } from './beats';
import { median, report } from './report';

const RATE = 48000;
const PASSES = 8;

/** What the audio clock is given, woken at uneven times, with edits that change nothing. */
const scheduled = (beat: Beat): PlannedNote[] => {
  const plan = planLive(beat, beat.patterns[0]!);
  const played = playable(plan);
  const feeder = startFeeder(played, RATE, 4800);
  const end = frameAt(feeder, played.length * PASSES);
  let queue: PlannedNote[] = [];
  for (let now = 0, turn = 0; now < end; now += 480 + ((turn * 7919) % 40000), turn++) {
    const batch = turn % 9 === 8 ? change(feeder, played, now) : wake(feeder, now);
    if (batch) queue = queue.filter((note) => note.frame < batch.from).concat(batch.notes);
  }
  return queue.filter((note) => note.frame < end);
};

const compare = (beat: Beat): { wrong: number; notes: number; left: number; worst: number } => {
  const pattern = beat.patterns[0]!;
  const length = patternTicks(pattern);
  const total = length * PASSES;
  const moved = allNotes(planPasses(beat, pattern, PASSES), 'wrap').filter((note) => note.moved);
  const file = readNotes(
    exportPattern(beat, pattern, { ...EXPORT_DEFAULTS, ppq: 1920, passes: PASSES }).bytes,
  );
  const tickMs = file.tempo / 1000 / 1920;
  const carried = new Set(moved.map((note) => `${note.note} ${Math.round(note.tick * 2) % (total * 2)}`));
  const written = file.notes.filter((note) => !carried.has(`${note.note} ${note.tick}`));
  // Early notes of the pass that follows the last one are heard before its bar line and not part of these passes.
  const heard = scheduled(beat).filter((note) => !note.moved && note.cycle * length < total);
  let worst = 0;
  let wrong = Math.abs(heard.length - written.length);
  const byNote = new Map<number, typeof written>();
  for (const note of written) byNote.set(note.note, [...(byNote.get(note.note) ?? []), note]);
  for (const note of heard) {
    const ms = ((note.frame - 4800) * 1000) / RATE;
    const same = byNote
      .get(note.note)
      ?.find((one) => one.velocity === note.velocity && Math.abs(one.tick * tickMs - ms) <= tickMs / 2 + 0.1);
    if (same) worst = Math.max(worst, Math.abs(same.tick * tickMs - ms));
    else wrong++;
  }
  return { wrong, notes: heard.length, left: moved.length, worst };
};

const ms = (work: () => void): number => {
  const start = performance.now();
  work();
  return performance.now() - start;
};

const BIG = grown(16, 16);
const PER_PASS = allNotes(planPasses(BIG, BIG.patterns[0]!, 1), 'wrap').length;

/**
 * At 96 ticks a quarter every time between events fits one byte. That is the package's best case: where more bytes are
 * needed it copies all that it has written so far, and 100,000 notes take it minutes.
 */
const PPQ = 96;

/** Plays and writes about so many notes, as the app does; the bytes. */
const playAndWrite = (notes: number, beat = BIG): Uint8Array =>
  exportPattern(beat, beat.patterns[0]!, {
    ...EXPORT_DEFAULTS,
    ppq: PPQ,
    passes: Math.round(notes / PER_PASS),
  }).bytes;

/** The package writes its own best case: the file as it is without a feel. */
const againstPackage = (what: string, beat: Beat): void => {
  const bytes = playAndWrite(100000);
  const ours: number[] = [];
  const theirs: number[] = [];
  for (let round = 0; round < 7; round++) {
    ours.push(ms(() => playAndWrite(100000, beat)));
    theirs.push(ms(() => writeMidi(parseMidi(bytes), { running: false })));
  }
  const ratio = median(ours) / median(theirs);
  const count = readNotes(bytes).notes.length;
  report(
    `${what} ${count} notes, against midi-file parsing and writing the same file`,
    `${ratio.toFixed(2)} x (${median(ours).toFixed(0)} ms against ${median(theirs).toFixed(0)} ms)`,
    '1.5 x or less',
    ratio <= 1.5,
  );
};

const reporting = (): void => {
  const { notes } = playAndHear(20000);
  const performance = {
    notes,
    bars: steadyBars(BIG.patterns[0]!.meter),
    meter: BIG.patterns[0]!.meter,
    ticksPerMs: () => ticksPerMs(BIG.tempo),
    length: 16 * 3840,
  };
  const times = Array.from({ length: 5 }, () => ms(() => reportFeel(performance)));
  report(
    `feel report of ${notes.length} notes`,
    `${median(times).toFixed(0)} ms`,
    'under 1000 ms',
    median(times) < 1000,
  );
};

/** About so many notes as they sound. */
const playAndHear = (count: number) => {
  const beat = felt(BIG);
  const passes = Math.ceil(count / PER_PASS);
  const notes = allNotes(planPasses(beat, beat.patterns[0]!, passes), 'wrap').slice(0, count);
  return { notes: notes.map(({ tick, velocity, lane }) => ({ at: tick, velocity, lane: String(lane) })) };
};

const growth = (): void => {
  const small: number[] = [];
  const large: number[] = [];
  for (let round = 0; round < 5; round++) {
    small.push(ms(() => playAndWrite(100000)));
    large.push(ms(() => playAndWrite(400000)));
  }
  const ratio = median(large) / median(small);
  report('cost from 100,000 to 400,000 notes', `${ratio.toFixed(2)} x`, 'at most 4.4 x', ratio <= 4.4);
};

for (const beat of DEMO_BEATS.flatMap((one) => [
  one,
  { ...felt(one), name: `${one.name} with every stage of feel` },
])) {
  const { wrong, notes, left, worst } = compare(beat);
  report(
    `${beat.name}: exported at 1920 against scheduled, 8 passes`,
    `${notes} notes, ${wrong} differ, worst ${worst.toFixed(3)} ms, ${left} carried over the edge and left out`,
    'none differ',
    wrong === 0 && notes > 0,
  );
}
againstPackage('play and write', BIG);
againstPackage('full feel on and writing', felt(BIG));
reporting();
growth();

/** Files damaged at random: each is answered, and soon. */
const damaged = (): void => {
  const whole = playAndWrite(300);
  let seed = 12345;
  const next = (below: number): number => {
    seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
    return Math.floor((seed / 4294967296) * below);
  };
  let longest = 0;
  let answered = 0;
  for (let file = 0; file < 10000; file++) {
    const bytes = whole.slice(0, next(4) ? whole.length : 1 + next(whole.length));
    for (let change = 1 + next(20); change > 0; change--) bytes[next(bytes.length)] = next(256);
    longest = Math.max(
      longest,
      ms(() => {
        const read = inspectMidi(bytes);
        if (read.ok ? read.value.notes >= 0 : read.error.endsWith('.')) answered += 1;
      }),
    );
  }
  report(
    '10,000 MIDI files damaged at random',
    `${answered} answered, the longest took ${longest.toFixed(0)} ms`,
    'all, none over 100 ms',
    answered === 10000 && longest < 100,
  );
};
damaged();
