/**
 * Routes that are switched while a pattern plays.
 *
 * @jest-environment node
 */
import { newFeel } from '../../core/document/feelDefaults';
import { playable } from '../../core/play/playable';
import { planLive } from '../../core/play/timelinePlan';
import type { Beat } from '../../core/document/schema';
import { SAMPLE_RATE } from '../audio/timing';
import { beatOf, play, room } from './__mocks__/playerRoom';

const SWAPPED = { over: 'bar' as const, route: [5, 6, 7, 8, 1, 2, 3, 4], chance: 1, lanes: null };
const BACKWARD = { over: 'bar' as const, route: [4, 3, 2, 1], chance: 1, lanes: null };
// The fourth of eight slots and the fourth of four play the same two hits.
const EIGHTHS = { over: 'bar' as const, route: [8, 7, 6, 5, 4, 3, 2, 1], chance: 1, lanes: null };
const QUARTERS = { over: 'bar' as const, route: [4, 3, 2, 3], chance: 1, lanes: null };
const busy = (change: Partial<Beat> = {}) =>
  beatOf(
    Array.from({ length: 16 }, (_, step) => step),
    change,
  );

/** What is heard in the end: each batch takes the place of what waited from its first frame on. */
const heard = (one: ReturnType<typeof room>) =>
  one.page.reduce<{ id: string; frame: number; step: number }[]>(
    (all, message) =>
      message.type === 'handed'
        ? [...all.filter(({ frame }) => frame < message.from), ...message.notes]
        : all,
    [],
  );
const routed = (one: ReturnType<typeof room>) => one.page.findLast((message) => message.type === 'routed')!;

test('each begins to the tick at the next slot or bar; what is heard is what the list of them plays', async () => {
  for (const change of [{}, { feel: newFeel({ percent: 62, grid: '1/16' }) }, { tempo: 171 }]) {
    const beat = busy(change);
    const one = room();
    await play(one, beat);
    const start = heard(one)[0]!.frame;
    const asks: [number, typeof SWAPPED | null, number][] = [
      [0.9, SWAPPED, 480],
      [1.45, BACKWARD, 960],
      [1.5, SWAPPED, 3840],
      [3.1, null, 480],
      [3.17, BACKWARD, 480],
      [4.02, EIGHTHS, 3840],
      [6.9, QUARTERS, 1920],
      [7.3, SWAPPED, 480],
    ];
    let asked = 0;
    for (let ms = 100; ms < 9000; ms += 20) {
      one.clock(ms / 1000);
      while (asks[asked] && asks[asked]![0] * 1000 <= ms) {
        const [, detour, every] = asks[asked++]!;
        one.player.fromPage({ type: 'route', asked, detour, every });
        const { switched, frame } = routed(one);
        const last = switched.at(-1)!;
        expect(last.detour).toEqual(detour);
        expect(last.at % every).toBe(0);
        const ahead = (frame! - (ms / 1000) * SAMPLE_RATE) / SAMPLE_RATE;
        expect(ahead).toBeGreaterThan(0.02);
        // The next one, or the one after where a stroke was on its way.
        expect(ahead).toBeLessThan(0.03 + (2 * every) / 960 / (beat.tempo / 60));
      }
    }
    const { switched } = routed(one);
    const plan = playable(planLive(beat, beat.patterns[0]!, { switched }));
    const wanted = plan
      .notes(0, plan.tickAt(9))
      .map(({ tick, step }) => [start + Math.round(plan.secondsAt(tick) * SAMPLE_RATE), step]);
    const all = heard(one).filter(({ frame }) => frame < start + 9 * SAMPLE_RATE);
    expect(all.map(({ frame, step }) => [frame, step])).toEqual(wanted);
    expect(new Set(all.map(({ id }) => id)).size).toBe(all.length);
  }
});

test('a stroke that is played ahead and on its way already keeps its slot: the next one is the first of the new route', async () => {
  const beat = busy({ feel: { ...newFeel(), lanes: { kick: { offset: -40 } } } });
  const one = room();
  await play(one, beat);
  // 20 ms before the stroke of 480 is heard, which sounds 40 ms ahead of its slot.
  const [first] = heard(one);
  const slot = first!.frame / SAMPLE_RATE + 0.25;
  one.clock(slot - 0.06);
  one.player.fromPage({ type: 'route', asked: 1, detour: SWAPPED, every: 480 });
  expect(routed(one).switched.at(-1)!.at).toBe(960);
  const notes = heard(one);
  expect(new Set(notes.map(({ id }) => id)).size).toBe(notes.length);
});

test('one that the page sets by hand falls on a slot too; its word of what is heard already changes nothing', async () => {
  const beat = busy();
  const one = room();
  await play(one, beat);
  one.clock(1);
  const turned = { ...beat, patterns: [{ ...beat.patterns[0]!, detour: SWAPPED }] };
  one.show(turned);
  const { switched } = routed(one);
  expect(switched).toHaveLength(2);
  expect(switched[1]!.at % 480).toBe(0);
  one.player.fromPage({ type: 'route', asked: 1, detour: BACKWARD, every: 960 });
  const after = routed(one).switched;
  one.show({ ...beat, patterns: [{ ...beat.patterns[0]!, detour: BACKWARD }] });
  expect(routed(one).switched).toBe(after);
});

test('without a pattern that plays by itself it says so, and play begins with the pattern as it is', async () => {
  const one = room();
  one.connect();
  one.show(busy());
  one.player.fromPage({ type: 'route', asked: 7, detour: SWAPPED, every: 480 });
  expect(routed(one)).toMatchObject({ asked: 7, frame: null });
  await play(one, busy());
  expect(routed(one).switched).toEqual([{ at: 0, detour: null }]);
});
