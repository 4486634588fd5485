import { DEMO_BEATS } from '../../demo/beats';
import { HOW_DEFAULTS, WHAT_DEFAULTS } from '../../core/export/choice';
import * as bouncing from '../../core/export/bounce';
import { bounceAll, type BounceAsked, type BounceGiven } from './bouncer';

const asked = (change: Partial<BounceAsked['how']> = {}): BounceAsked => ({
  beat: DEMO_BEATS[0]!,
  how: { ...HOW_DEFAULTS, as: 'audio', scope: 'pattern', passes: 1, ...change } as BounceAsked['how'],
  what: WHAT_DEFAULTS,
});

const all = async (one: BounceAsked): Promise<BounceGiven[]> => {
  const given: BounceGiven[] = [];
  await bounceAll(one, (next) => given.push(next));
  return given;
};

afterEach(() => jest.restoreAllMocks());

test('how far it is only grows; each file comes once, and at the end it is done', async () => {
  const given = await all(asked());
  const done = given.flatMap((one) => (one.type === 'progress' ? [one.done] : []));
  expect(done.length).toBeGreaterThan(0);
  expect(done).toEqual([...done].sort((a, b) => a - b));
  const files = given.flatMap((one) => (one.type === 'file' ? [one] : []));
  expect(files).toHaveLength(1);
  expect(String.fromCharCode(...files[0]!.bytes.subarray(0, 4))).toBe('RIFF');
  expect(given.at(-1)).toEqual({ type: 'done' });
});

test('no memory left, or any other fault, is one sentence and the end', async () => {
  const fail = (fault: unknown) =>
    jest.spyOn(bouncing, 'bounce').mockImplementation(() => {
      throw fault;
    });
  fail(new RangeError('Invalid typed array length'));
  expect(await all(asked())).toEqual([{ type: 'fault', error: expect.stringContaining('no room') }]);
  fail(new Error('odd'));
  expect(await all(asked())).toEqual([{ type: 'fault', error: expect.stringContaining('odd') }]);
});
