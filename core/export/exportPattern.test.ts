import { kickBeat } from '../play/section.mock';
import { patternTicks } from '../document/defaults';
import { allNotes } from '../play/driver';
import { planPasses } from '../play/timelinePlan';
import fc from 'fast-check';
import { beats } from '../arbitraries';
import { DEMO_BEATS } from '../../demo/beats';
import { newHit } from '../document/defaults';
import { EXPORT_DEFAULTS, exportPattern } from './exportPattern.mock';
import { fileNotes } from '../midi/write/fileNotes';
import { readNotes } from '../midi/read/readBack.mock';

const LANTERN = DEMO_BEATS[0]!;
const options = fc.record({
  format: fc.constantFrom(0 as const, 1 as const),
  ppq: fc.constantFrom(96, 120, 480, 960, 1920),
  passes: fc.integer({ min: 1, max: 3 }),
  channel: fc.integer({ min: 1, max: 16 }),
  includeMuted: fc.boolean(),
  edges: fc.constantFrom('wrap' as const, 'hold' as const),
});

describe('a pattern as a MIDI file', () => {
  test('no note overlaps the next of its number, none is empty, and all end on the bar line', () => {
    fc.assert(
      fc.property(beats, options, (beat, chosen) => {
        const midi = readNotes(exportPattern(beat, beat.patterns[0]!, chosen).bytes);
        const length = patternTicks(beat.patterns[0]!);
        expect(midi.end).toBe(Math.round((length * chosen.passes * chosen.ppq) / 960));
        const ends = new Map<number, number>();
        for (const note of midi.notes) {
          expect(note.length).toBeGreaterThan(0);
          expect(note.tick).toBeGreaterThanOrEqual(ends.get(note.note) ?? 0);
          expect(note.channel).toBe(chosen.channel);
          ends.set(note.note, note.tick + note.length);
        }
      }),
    );
  });

  test('what is written is what is played, to half a tick, unless there is no room', () => {
    fc.assert(
      fc.property(beats, (beat) => {
        const pattern = beat.patterns[0]!;
        const file = exportPattern(beat, pattern, { ...EXPORT_DEFAULTS, ppq: 1920 });
        const played = allNotes(planPasses(beat, pattern, 1), 'wrap');
        const written = readNotes(file.bytes).notes;
        expect(written.length + file.dropped).toBe(played.length);
        const total = readNotes(file.bytes).end;
        const apart = (a: number, b: number) =>
          Math.min(Math.abs(a - b) % total, total - (Math.abs(a - b) % total));
        const taken = new Set(written.map(({ note, tick }) => `${note} ${tick}`));
        // A note that stands right behind another of its number may have been moved there to make room.
        const missing = written.filter(
          (note) =>
            !taken.has(`${note.note} ${note.tick - 1}`) &&
            !played.some(
              (one) =>
                one.note === note.note &&
                one.velocity === note.velocity &&
                apart(one.tick * 2, note.tick) <= 0.5 + 1e-6,
            ),
        );
        expect(missing).toEqual([]);
      }),
    );
  });

  test.each(DEMO_BEATS.map((beat) => [beat.name, beat] as const))(
    '%s: every note within half a tick',
    (_, beat) => {
      const pattern = beat.patterns[0]!;
      const played = allNotes(planPasses(beat, pattern, 2), 'wrap').sort(
        (a, b) => a.tick - b.tick || a.note - b.note,
      );
      const file = readNotes(exportPattern(beat, pattern, { ...EXPORT_DEFAULTS, passes: 2, ppq: 480 }).bytes);
      const key = (note: { tick: number; note: number; velocity: number }) =>
        `${note.note} ${note.velocity} ${note.tick}`;
      expect(file.notes.map(key).sort()).toEqual(
        played.map((note) => key({ ...note, tick: Math.round(note.tick / 2) })).sort(),
      );
    },
  );

  test('tempo, time signature and names stand in it', () => {
    const { bytes, name } = exportPattern(LANTERN, LANTERN.patterns[0]!, EXPORT_DEFAULTS);
    const text = Array.from(bytes, (byte) => String.fromCharCode(byte)).join('');
    expect(name).toBe('Lantern-Walk-A-the-stalls.mid');
    expect(text).toContain('Lantern Walk');
    expect(text).toContain('A \u00c2\u00b7 the stalls');
    expect(text).toContain('\xff\x58\x04\x04\x02\x18\x08');
    expect(readNotes(bytes).tempo).toBe(Math.round(60e6 / 92));
  });

  test('a muted lane is left out and named, or written when asked for', () => {
    const muted = { ...LANTERN, lanes: LANTERN.lanes.map((lane) => ({ ...lane, mute: lane.id === 'kick' })) };
    const without = exportPattern(muted, muted.patterns[0]!, EXPORT_DEFAULTS);
    const whole = exportPattern(muted, muted.patterns[0]!, { ...EXPORT_DEFAULTS, includeMuted: true });
    expect(without.leftOut).toEqual(['Kick']);
    expect(whole.leftOut).toEqual([]);
    expect(readNotes(without.bytes).notes.some(({ note }) => note === 36)).toBe(false);
    expect(readNotes(whole.bytes).notes.some(({ note }) => note === 36)).toBe(true);
  });

  test('a note that rounds onto the tick of the one before goes one later; without room the louder stays', () => {
    const note = (tick: number, velocity: number) => ({
      ...allNotes(planPasses(kickBeat([newHit(0)]), kickBeat([newHit(0)]).patterns[0]!, 1), 'wrap')[0]!,
      tick,
      velocity,
    });
    const spread = fileNotes([[note(100, 50), note(100.2, 60), note(100.4, 70)]], 3840, 960);
    expect([...spread.notes.tick]).toEqual([100, 101, 102]);
    const full = fileNotes([[note(3838, 90), note(3839, 50), note(3839.2, 80)]], 3840, 960);
    expect(full.dropped).toBe(1);
    expect([[...full.notes.tick], [...full.notes.velocity]]).toEqual([
      [3838, 3839],
      [90, 80],
    ]);
  });

  test('an early first hit comes in at the loop’s end, and is counted', () => {
    const beat = kickBeat([{ ...newHit(0), nudge: -0.25 }, newHit(4)]);
    const file = exportPattern(beat, beat.patterns[0]!, EXPORT_DEFAULTS);
    expect(file.carried).toBe(1);
    expect(readNotes(file.bytes).notes.map(({ tick }) => tick)).toEqual([960, 3780]);
  });
});
