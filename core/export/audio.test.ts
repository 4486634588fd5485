import { DEMO_BEATS } from '../../demo/beats';
import { EMPTY_LANE_PATTERN, newBeat, newHit } from '../document/defaults';
import type { Beat } from '../document/schema';
import { bounce, bounceVoices, tooLarge, waveOf } from './bounce';
import { createSounds, soundsOfBeat } from '../samples/sounds';
import type { Sound } from '../samples/voiceSound';
import { HOW_DEFAULTS, WHAT_DEFAULTS, type ExportHow } from './choice';
import { exported, type Exported } from './exporting';
import { hitsOf } from './list';

const LANTERN = DEMO_BEATS[0]!;

const made = (beat: Beat, how: Partial<ExportHow>, what: Partial<typeof WHAT_DEFAULTS> = {}): Exported => {
  const out = exported(beat, { ...HOW_DEFAULTS, ...how }, { ...WHAT_DEFAULTS, ...what });
  if (!out.ok) throw new Error(out.error);
  return out.value;
};
describe('audio', () => {
  const short: Beat = {
    ...newBeat('b', 'Quay', 1),
    tempo: 133,
    patterns: [
      {
        id: 'a',
        name: 'A',
        meter: { beats: 4, unit: 4 },
        bars: 1,
        parts: {
          clap: {
            ...EMPTY_LANE_PATTERN,
            grid: '1/8',
            hits: [0, 1, 3, 4, 6].map((step) => ({ ...newHit(step, 120), length: 0.4 })),
          },
        },
      },
    ],
  };
  const render = async (how: Partial<ExportHow>, beat: Beat = short) => {
    const all = { ...HOW_DEFAULTS, ...how };
    const out = made(beat, all);
    const [voice] = bounceVoices(out.pieces[0]!, out.beat, all);
    const sounds = await soundsOfBeat(createSounds(all.rate), out.beat);
    const steps = bounce(out.pieces[0]!, out.beat, all, sounds, voice!);
    let last = 0;
    for (;;) {
      const step = steps.next();
      if (step.done) return { out, bytes: step.value, last };
      last = step.value;
    }
  };
  const samplesOf = (wav: Uint8Array): number[] => [...new Float32Array(wav.slice(44).buffer)];
  /** Where something begins to sound after silence. */
  const onsets = (wav: Uint8Array): number[] => {
    const view = new DataView(wav.buffer);
    const found: number[] = [];
    let quiet = 2000;
    for (let at = 44, frame = 0; at < wav.length; at += 8, frame++) {
      const loud = Math.abs(view.getFloat32(at, true)) > 1e-5;
      if (loud && quiet >= 1500) found.push(frame);
      quiet = loud ? 0 : quiet + 1;
    }
    return found;
  };

  test('hits begin in the file within a sample of where they are listed', async () => {
    const { out, bytes: wav, last } = await render({ depth: '32f', tail: false });
    expect(last).toBe(1);
    const listed = hitsOf(out.pieces[0]!, out.beat).map(({ ms }) => (ms * 48000) / 1000);
    const heard = onsets(wav);
    expect(heard).toHaveLength(listed.length);
    // The sound itself begins at its first sample or a few after it: the same for all.
    const lag = heard[0]! - listed[0]!;
    heard.forEach((frame, at) => expect(Math.abs(frame - lag - listed[at]!)).toBeLessThanOrEqual(1));
  });

  test.each([
    ['16', 44100, 2 * 2],
    ['24', 48000, 2 * 3],
    ['32f', 44100, 2 * 4],
  ] as const)(
    '%s at %i Hz has the length of the bar, and with its tail four seconds more',
    async (depth, rate, frame) => {
      const cut = (await render({ depth, rate, tail: false })).bytes;
      const bar = (4 * 60) / 133;
      expect(cut.length).toBe(44 + Math.round((4 * Math.round(60e6 / 133) * rate) / 1e6) * frame);
      expect(new DataView(cut.buffer).getUint32(24, true)).toBe(rate);
      const { out } = await render({ depth, rate, tail: true });
      expect(waveOf(out.pieces[0]!, { ...HOW_DEFAULTS, depth, rate }).frames).toBe(
        Math.round((bar + 4) * rate),
      );
    },
  );

  test('cut to loop it is heard as in its second round: its end rings on into its start, a song is only cut', async () => {
    const [ride] = newBeat('b', 'B', 1).lanes.filter(({ instrument }) => instrument === 'hat.open');
    const entries = [{ id: 'e', patternId: 'a', times: 2 }];
    const [pattern] = short.patterns;
    const rung: Beat = {
      ...short,
      tempo: 120,
      // A crash has but one strike: with several, the second round would not give those of the first.
      lanes: short.lanes.map((lane) => (lane.id === ride!.id ? { ...lane, instrument: 'crash' } : lane)),
      patterns: [
        {
          ...pattern!,
          parts: {
            [ride!.id]: { ...EMPTY_LANE_PATTERN, grid: '1/8', hits: [newHit(2, 90), newHit(7, 120)] },
          },
        },
      ],
      song: {
        sections: [{ id: 's', name: 'S', pigment: 'lichen', entries, silent: [] }],
        order: [{ id: 'o', sectionId: 's', times: 1 }],
      },
    };
    const loop = samplesOf((await render({ depth: '32f', tail: false }, rung)).bytes);
    const both = samplesOf((await render({ depth: '32f', tail: false, scope: 'song' }, rung)).bytes);
    expect([loop.length, both.length]).toEqual([2 * 96000, 4 * 96000]);
    const second = both.slice(both.length - loop.length);
    // But for the last 3 ms, where the song is cut and fades.
    const same = loop.slice(0, -2 * 144).every((sample, at) => Math.abs(sample - second[at]!) < 1e-4);
    expect(same).toBe(true);
    expect(Math.abs(both.at(-1)!)).toBeLessThan(1e-3);
    // The start of the first round has nothing to ring on.
    expect(Math.max(...both.slice(0, 400).map(Math.abs))).toBeLessThan(1e-6);
    expect(Math.max(...loop.slice(0, 400).map(Math.abs))).toBeGreaterThan(0.001);
  });

  /** A sound that swells for 100 ms before its attack, then falls off for as long, played on beat 1 and beat 3. */
  const slow = (how: Partial<ExportHow>): number[] => {
    const lead = 4800;
    const buffer = Float32Array.from({ length: 2 * lead }, (_, at) => 1 - Math.abs(at - lead) / lead);
    const layer = { low: 1, high: 127, level: 1, pan: 0, first: 0, forces: 1, strikes: 1, sides: 1, lead };
    const sound: Sound = {
      buffers: [buffer],
      plan: { layers: [layer], choose: 'velocity', fade: 0, held: false, slices: false } as never,
    };
    const beat: Beat = {
      ...short,
      tempo: 120,
      patterns: [
        {
          ...short.patterns[0]!,
          parts: { kick: { ...EMPTY_LANE_PATTERN, hits: [newHit(0, 100), newHit(8, 100)] } },
        },
      ],
    };
    const all = { ...HOW_DEFAULTS, depth: '32f' as const, ...how };
    const out = made(beat, all);
    const [voice] = bounceVoices(out.pieces[0]!, out.beat, all);
    const steps = bounce(
      out.pieces[0]!,
      out.beat,
      all,
      out.beat.lanes.map(() => sound),
      voice!,
    );
    for (;;) {
      const step = steps.next();
      if (step.done) return samplesOf(step.value).filter((_, at) => at % 2 === 0);
    }
  };
  const largestStep = (samples: number[]) =>
    samples.slice(1).reduce((most, x, at) => Math.max(most, Math.abs(x - samples[at]!)), 0);

  test('what leads up to beat 1 of a loop is heard at its end, and the turn has no edge', () => {
    const loop = slow({ tail: false });
    // The attack falls on the first sample, and 100 ms before the end the next one begins to swell.
    expect(loop).toHaveLength(96000);
    const at = (ms: number) => loop[Math.round(ms * 48)]!;
    expect(at(0)).toBeCloseTo(at(1000), 3);
    expect(at(1950)).toBeCloseTo(at(950), 3);
    expect(at(1850)).toBe(0);
    expect(largestStep([...loop, ...loop])).toBeLessThan(2 * largestStep(loop.slice(40000, 60000)));
  });

  test('bounced plain it begins in the middle of its sound, and comes up within 3 ms', () => {
    const plain = slow({ tail: true });
    expect(Math.abs(plain[0]!)).toBeLessThan(0.01);
    expect(plain[144]!).toBeCloseTo(plain[48144]!, 2);
    expect(largestStep(plain)).toBeLessThan(0.02);
  });

  test('stems are a file a lane; what is too large is refused with smaller choices', () => {
    const out = made(LANTERN, { kind: 'audio', scope: 'pattern', stems: true });
    expect(out.files.map(({ name }) => name)).toContain('Lantern-Walk-A-the-stalls-Kick.wav');
    // Each stem counts its own notes.
    const whole = made(LANTERN, { scope: 'pattern' });
    expect(out.files.reduce((sum, { notes }) => sum + notes, 0)).toBe(whole.files[0]!.notes);
    const song = made(LANTERN, { scope: 'song' });
    const large = tooLarge(song.pieces, song.beat, { ...HOW_DEFAULTS, depth: '32f', stems: true });
    expect(large).toMatch(/^This would take \d+ MB, more than the 700 MB .*Smaller: 16 bit, or no stems/);
    expect(
      exported(
        LANTERN,
        { ...HOW_DEFAULTS, kind: 'audio', scope: 'song', depth: '32f', stems: true },
        WHAT_DEFAULTS,
      ),
    ).toEqual({
      ok: false,
      error: large,
    });
  });
});
