import { kickBeat } from '../../core/play/section.mock';
import { microsOf } from '../../core/play/tempoMap';
import { notesIn } from '../../core/play/driver';
import { planLive, planSong } from '../../core/play/timelinePlan';
import { playable } from '../../core/play/playable';
import { newFeel } from '../../core/document/feelDefaults';
import fc from 'fast-check';
import { beats } from '../../core/arbitraries';
import { newHit } from '../../core/document/defaults';
import type { Beat } from '../../core/document/schema';
import { setStep } from '../../core/edit/hits';
import { CLICKS, clickNotes } from '../../core/mix/click';
import {
  change,
  CUT_SECONDS,
  EDITED_LEAD_SECONDS,
  frameAt,
  LEAD_SECONDS,
  realign,
  startFeeder,
  switchTo,
  tickAt,
  wake,
  type Batch,
  type PlannedNote,
} from './feeder';

const RATE = 48000;

const everyStep = (tempo = 120): Beat =>
  kickBeat(
    Array.from({ length: 16 }, (_, at) => newHit(at)),
    { tempo },
  );
const plan = (beat: Beat) => playable(planLive(beat, beat.patterns[0]!));
const whole = (beat: Beat, to: number) => notesIn(planLive(beat, beat.patterns[0]!), 0, to);

/** What the audio thread does with batches: begins each note at its frame, or as soon as it knows of it. */
const createEar = () => {
  let queue: PlannedNote[] = [];
  const heard: { note: PlannedNote; at: number }[] = [];
  return {
    heard,
    take(batch: Batch | null) {
      if (batch) queue = queue.filter((note) => note.frame < batch.from).concat(batch.notes);
    },
    listen(to: number, now: number) {
      queue
        .filter((note) => note.frame < to)
        .forEach((note) => heard.push({ note, at: Math.max(note.frame, now) }));
      queue = queue.filter((note) => note.frame >= to);
    },
  };
};

const late = (heard: { note: PlannedNote; at: number }[]) =>
  heard.filter(({ note, at }) => at > note.frame + RATE / 1000);

describe('the feeder', () => {
  test('loses and delays nothing when it is woken only once a second, or after up to two', () => {
    fc.assert(
      fc.property(
        beats,
        fc.array(fc.double({ min: 0.01, max: 2, noNaN: true }), { minLength: 3, maxLength: 12 }),
        (beat, pauses) => {
          const feeder = startFeeder(plan(beat), RATE, 4800);
          const ear = createEar();
          let now = 0;
          ear.take(wake(feeder, now));
          for (const pause of [...pauses, 1, 1]) {
            const next = now + Math.round(pause * RATE);
            ear.listen(next, now);
            now = next;
            ear.take(wake(feeder, now));
          }
          const all = whole(beat, tickAt(feeder, now + 2)).filter((note) => frameAt(feeder, note.tick) < now);
          expect(late(ear.heard)).toEqual([]);
          expect(ear.heard.map(({ note }) => note.tick)).toEqual(all.map((note) => note.tick));
        },
      ),
      { numRuns: 60 },
    );
  });

  test('meets every frame to half a frame', () => {
    const feeder = startFeeder(plan(everyStep(97)), RATE, 1000);
    const { notes } = wake(feeder, 0)!;
    for (const note of notes) {
      // A file can tell a tempo in whole microseconds only, and what is heard keeps to the file.
      const exact = 1000 + (note.tick * microsOf(97) * RATE) / (960 * 1e6);
      expect(Math.abs(note.frame - exact)).toBeLessThanOrEqual(0.5);
    }
  });

  test('an edit is heard after 25 ms at the latest, and nothing else changes', () => {
    const before = everyStep();
    const after = { ...before, patterns: [setStep(before.patterns[0]!, 'snare', 5, true)] };
    const feeder = startFeeder(plan(before), RATE, 0);
    wake(feeder, 0);
    // Step 6 sounds at 0.625 s; the edit comes 30 ms before.
    const batch = change(feeder, plan(after), Math.round(0.595 * RATE));
    expect(batch.from).toBe(Math.round((0.595 + CUT_SECONDS) * RATE));
    expect(batch.notes[0]!.frame).toBe(30000);
    expect(batch.notes.slice(0, 3).map(({ lane, step }) => [lane, step])).toEqual([
      [0, 5],
      [1, 5],
      [0, 6],
    ]);
  });

  test('a change of swing while it plays neither doubles nor drops a hit', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 96000 }),
        fc.constantFrom(50, 54, 60, 66, 75),
        fc.constantFrom(50, 54, 60, 66, 75),
        (at, from, to) => {
          const swung = (percent: number) =>
            plan({ ...everyStep(), feel: newFeel({ percent, grid: '1/16' }) });
          const feeder = startFeeder(swung(from), RATE, 0);
          const ear = createEar();
          ear.take(wake(feeder, 0));
          ear.listen(at, 0);
          ear.take(change(feeder, swung(to), at));
          ear.take(wake(feeder, at + RATE));
          ear.listen(at + 2 * RATE, at);
          const turns = ear.heard.map(({ note }) => note.cycle * 16 + note.step);
          expect(turns).toEqual(Array.from({ length: turns.length }, (_, turn) => turn));
        },
      ),
    );
  });

  test('a change of tempo goes on from where playback stands', () => {
    const feeder = startFeeder(plan(everyStep(120)), RATE, 0);
    wake(feeder, 0);
    const now = RATE;
    const cut = now + CUT_SECONDS * RATE;
    const tick = tickAt(feeder, cut);
    change(feeder, plan(everyStep(240)), now);
    expect(tickAt(feeder, cut)).toBeCloseTo(tick);
    expect(tickAt(feeder, cut + RATE) - tick).toBeCloseTo(3840);
  });

  const other = (): Beat => {
    const beat = everyStep();
    const snare = { ...beat.patterns[0]!.parts['kick']!, hits: [newHit(0)] };
    return { ...beat, patterns: [{ ...beat.patterns[0]!, parts: { snare } }] };
  };

  test.each([
    ['now', 0.3, 0.325, 2],
    ['beat', 0.3, 0.5, 0.5],
    ['end', 0.3, 2, 2],
  ] as const)(
    'another pattern begins %s, at once from the same place of the bar, and the first one plays until then',
    (at, asked, due, first) => {
      const ear = createEar();
      const feeder = startFeeder(plan(everyStep()), RATE, 0);
      ear.take(wake(feeder, 0));
      ear.listen(asked * RATE, asked * RATE);
      ear.take(switchTo(feeder, plan(other()), asked * RATE, at, 960));
      for (let second = asked; second < 5; second += 0.5) {
        ear.take(wake(feeder, second * RATE));
        ear.listen((second + 0.5) * RATE, second * RATE);
      }
      const kicks = ear.heard.filter(({ note }) => note.note === 36).map(({ note }) => note.frame / RATE);
      const snares = ear.heard.filter(({ note }) => note.note === 38).map(({ note }) => note.frame / RATE);
      expect(snares[0]).toBeCloseTo(first, 3);
      expect(snares[1]! - snares[0]!).toBeCloseTo(2, 3);
      expect(kicks).toHaveLength(Math.ceil(due / 0.125));
      expect(kicks.every((time) => time < due)).toBe(true);
    },
  );

  test('an edit of the pattern that is still to begin does not silence the one that plays', () => {
    const ear = createEar();
    const feeder = startFeeder(plan(everyStep()), RATE, 0);
    ear.take(wake(feeder, 0));
    ear.take(switchTo(feeder, plan(other()), 0.3 * RATE, 'end', 960));
    ear.take(change(feeder, plan(other()), 0.4 * RATE));
    ear.listen(2 * RATE, 0);
    expect(ear.heard).toHaveLength(16);
  });

  test('while a control is turned a second is planned at a time, and all of the lead once it rests; nothing is lost', () => {
    const beat = everyStep();
    const feeder = startFeeder(plan(beat), RATE, 0);
    const ear = createEar();
    let now = 0;
    let most = 0;
    const go = (frames: number) => {
      ear.listen(now + frames, now);
      now += frames;
      ear.take(wake(feeder, now));
      most = Math.max(most, feeder.until - now);
    };
    ear.take(wake(feeder, now));
    expect(feeder.until).toBe(LEAD_SECONDS * RATE);
    for (let turn = 0; turn < 40; turn++) {
      ear.take(change(feeder, plan(beat), now));
      most = 0;
      for (let woken = 0; woken < 6; woken++) go(0.01 * RATE);
      expect(most).toBeLessThanOrEqual((EDITED_LEAD_SECONDS + CUT_SECONDS) * RATE);
    }
    for (let woken = 0; woken < 22; woken++) go(0.01 * RATE);
    expect(most).toBeCloseTo(LEAD_SECONDS * RATE, -4);
    go(2 * RATE);
    expect(late(ear.heard)).toEqual([]);
    const all = whole(beat, tickAt(feeder, now + 2)).filter((note) => frameAt(feeder, note.tick) < now);
    expect(ear.heard.map(({ note }) => note.tick)).toEqual(all.map(({ tick }) => tick));
  });

  test('by a clock that wavers, each hit sounds once; after a leap, from where that leads', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -3 * 48, max: 3 * 48 }), { minLength: 5, maxLength: 30 }),
        fc.integer({ min: 0, max: 15 }),
        (offs, landing) => {
          const feeder = startFeeder(plan(everyStep()), RATE, 0);
          const ear = createEar();
          let now = 0;
          ear.take(wake(feeder, now));
          const go = (frames: number) => {
            ear.listen(now + frames, now);
            now += frames;
            ear.take(wake(feeder, now));
          };
          const ahead = 0.08 * RATE;
          for (const off of offs) {
            go(0.12 * RATE);
            ear.take(realign(feeder, { frame: now + ahead, tick: tickAt(feeder, now + ahead + off) }, now));
          }
          const steps = () => ear.heard.map(({ note }) => note.tick / 240);
          expect(steps()).toEqual(steps().map((_, at) => at));
          // A leap to a step of the first bar, which was heard a moment ago: it begins 80 ms from now.
          const frame = now + ahead;
          ear.take(realign(feeder, { frame, tick: landing * 240 }, now));
          ear.heard.length = 0;
          go(RATE);
          const after = ear.heard.filter(({ at }) => at >= frame - 1).map(({ note }) => note.tick / 240);
          expect(after).toEqual(after.map((_, at) => landing + at));
          expect(after.length).toBeGreaterThan(6);
        },
      ),
      { seed: 19, numRuns: 100 },
    );
  });

  test('a bar is counted before the pattern begins', () => {
    const feeder = startFeeder(plan(everyStep()), RATE, 0, -3840);
    const batch = wake(feeder, 0)!;
    expect(batch.notes[0]!.frame).toBe(2 * RATE);
    const clicks = clickNotes(feeder.plan.beats(tickAt(feeder, 0), 0), {
      level: 0.5,
      accent: true,
      frameAt: (tick) => frameAt(feeder, tick),
    });
    expect(clicks.map(({ frame }) => frame / RATE)).toEqual([0, 0.5, 1, 1.5]);
    expect(clicks.map(({ sound }) => sound - CLICKS)).toEqual([1, 0, 0, 0]);
  });

  describe('of a song', () => {
    /** Two sections of a bar each, the first at 120 BPM, the second at 60. */
    const song = (): Beat => {
      const beat = everyStep();
      const section = (id: string, tempo: number) => ({
        id,
        name: id,
        pigment: 'walnut' as const,
        entries: [{ id: 'e', patternId: beat.patterns[0]!.id, times: 1 }],
        silent: [],
        tempo,
      });
      return {
        ...beat,
        song: {
          sections: [section('fast', 120), section('slow', 60)],
          order: ['fast', 'slow'].map((id) => ({ id, sectionId: id, times: 1 })),
        },
      };
    };
    const times = (notes: { note: PlannedNote }[]) => notes.map(({ note }) => note.frame / RATE);
    const hear = (from: number, loop: { from: number; to: number } | null, seconds: number) => {
      const feeder = startFeeder(playable(planSong(song()), { start: from, loop }), RATE, 0);
      const ear = createEar();
      for (let second = 0; second < seconds; second += 0.3) {
        ear.take(wake(feeder, second * RATE));
        ear.listen(Math.min(second + 0.3, seconds) * RATE, second * RATE);
      }
      return ear.heard;
    };

    test('each section at its tempo, and nothing after the end', () => {
      const at = times(hear(0, null, 9));
      expect(at).toHaveLength(32);
      expect(at.slice(0, 3)).toEqual([0, 0.125, 0.25]);
      expect(at.slice(16, 19)).toEqual([2, 2.25, 2.5]);
      expect(at.at(-1)).toBeCloseTo(5.75);
    });

    test('from its middle, and a part of it again and again', () => {
      expect(times(hear(3840, null, 5)).slice(0, 2)).toEqual([0, 0.25]);
      const at = times(hear(1920, { from: 0, to: 3840 }, 5));
      expect(at.slice(0, 10)).toEqual(Array.from({ length: 10 }, (_, n) => n * 0.125));
      expect(at).toHaveLength(40);
    });

    test('another part that is repeated goes on from the same place', () => {
      const plan = planSong(song());
      const feeder = startFeeder(playable(plan, { start: 0, loop: { from: 0, to: 3840 } }), RATE, 0);
      wake(feeder, 0);
      // 4.5 s is the third time round, a quarter into the bar.
      const batch = change(feeder, playable(plan, { start: 0, loop: null }), 4.5 * RATE);
      expect(tickAt(feeder, (4.5 + CUT_SECONDS) * RATE)).toBeCloseTo(960 + CUT_SECONDS * 1920);
      expect(batch.notes[0]!.frame).toBe(4.625 * RATE);
      expect(feeder.plan.marks(3840, 4000)[0]).toMatchObject({ song: 3840, tick: 0, tempo: 60 });
    });
  });
});
