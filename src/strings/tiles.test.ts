import { newBeat } from '../../core/document/defaults';
import type { SongPicture } from '../workers/pictureWorker';
import { askTile } from './tiles';

type Asked = { type: 'song'; key: number; song: SongPicture } | { type: 'tile'; key: number; index: number };
const mockSent: Asked[] = [];
const mockWaiting = new Map<string, (blob: Blob | null) => void>();
/** Ends the painter that was hired last. */
let mockEnd: () => void = () => undefined;
const mockHired = { count: 0 };
jest.mock('../workers/makers', () => ({
  hirePainter: () => ({
    failed: new Promise<never>((_, reject) => {
      mockHired.count += 1;
      mockEnd = () => reject(new Error('ended'));
    }),
    far: {
      show: (key: number, song: SongPicture) => Promise.resolve(mockSent.push({ type: 'song', key, song })),
      tile: (key: number, index: number) => {
        mockSent.push({ type: 'tile', key, index });
        return new Promise((give) => mockWaiting.set(`${key} ${index}`, give));
      },
    },
  }),
}));
const answer = async (key: number, index: number, blob: Blob | null) => {
  mockWaiting.get(`${key} ${index}`)!(blob);
  await new Promise((resolve) => setTimeout(resolve));
};

const picture = (name: string): SongPicture => ({
  beat: { ...newBeat('b', name, 1) },
  ink: {},
  measures: { scale: 0.1, top: 0, height: 96 },
  width: 512,
  height: 162,
  ratio: 1,
});

beforeEach(() => mockSent.splice(0));

const blob = new Blob(['x']);
const keyNow = (): number => mockSent[mockSent.length - 1]!.key;

test('a song is told once, however many of its tiles are asked for; takes stay in the page', () => {
  const song = picture('One');
  const first = song.beat.patterns[0]!;
  const take = { id: 't', seed: 1, at: 0, name: 'A take', parts: {} };
  song.beat = { ...song.beat, patterns: [{ ...first, takes: [take as never] }] };
  askTile(song, 0, jest.fn(), jest.fn());
  askTile(song, 1, jest.fn(), jest.fn());
  expect(mockSent.map(({ type }) => type)).toEqual(['song', 'tile', 'tile']);
  const [told] = mockSent;
  expect(told!.type === 'song' && told!.song.beat.patterns[0]!.takes).toEqual([]);
});

test('a tile comes to the one that asked for it, and only once', async () => {
  const song = picture('Two');
  const [third, fourth] = [jest.fn(), jest.fn()];
  askTile(song, 3, third, jest.fn());
  askTile(song, 4, fourth, jest.fn());
  await answer(keyNow(), 4, blob);
  await answer(keyNow(), 4, blob);
  expect(third).not.toHaveBeenCalled();
  expect(fourth).toHaveBeenCalledTimes(1);
  expect(fourth).toHaveBeenCalledWith(blob);
});

test('a tile that could not be painted is not given, and that is told', async () => {
  const [give, fail] = [jest.fn(), jest.fn()];
  askTile(picture('Five'), 2, give, fail);
  await answer(keyNow(), 2, null);
  expect(give).not.toHaveBeenCalled();
  expect(fail).toHaveBeenCalledTimes(1);
});

test('what is no longer wanted is not given: taken back, or of a song that was changed meanwhile', async () => {
  const [taken, old] = [jest.fn(), jest.fn()];
  askTile(picture('Three'), 0, taken, jest.fn())();
  await answer(keyNow(), 0, blob);
  const song = picture('Four');
  askTile(song, 0, old, jest.fn());
  const before = keyNow();
  askTile({ ...song }, 1, jest.fn(), jest.fn());
  expect(keyNow()).not.toBe(before);
  await answer(before, 0, blob);
  expect(taken).not.toHaveBeenCalled();
  expect(old).not.toHaveBeenCalled();
});

const settle = () => new Promise((resolve) => setTimeout(resolve));

test('a painter that ends is replaced, and all that was wanted is asked of the next', async () => {
  const song = picture('Six');
  const [first, second, taken] = [jest.fn(), jest.fn(), jest.fn()];
  askTile(song, 0, first, jest.fn());
  askTile(song, 1, second, jest.fn());
  askTile(song, 2, taken, jest.fn())();
  const before = mockHired.count;
  mockSent.splice(0);
  mockEnd();
  await settle();
  expect(mockHired.count).toBe(before + 1);
  expect(mockSent.map((one) => (one.type === 'tile' ? one.index : one.song.beat.name))).toEqual([
    'Six',
    0,
    1,
  ]);
  await answer(keyNow(), 1, blob);
  expect([first.mock.calls.length, second.mock.calls.length, taken.mock.calls.length]).toEqual([0, 1, 0]);
});

test('one that ends again and again is told, and asked anew the next time', async () => {
  const fail = jest.fn();
  askTile(picture('Seven'), 0, jest.fn(), fail);
  for (let times = 0; times < 3; times++) {
    expect(fail).not.toHaveBeenCalled();
    mockEnd();
    await settle();
  }
  expect(fail).toHaveBeenCalledTimes(1);
  const give = jest.fn();
  askTile(picture('Eight'), 0, give, jest.fn());
  await answer(keyNow(), 0, blob);
  expect(give).toHaveBeenCalledWith(blob);
});
