import { newBeat } from '../../core/document/defaults';
import type { PictureAsked, SongPicture } from '../workers/pictureWorker';
import { askTile } from './tiles';

const sent: PictureAsked[] = [];
let answer: (given: { key: number; index: number; blob: Blob }) => void = () => undefined;

class FakeWorker {
  set onmessage(told: (event: { data: unknown }) => void) {
    answer = (data) => told({ data });
  }
  postMessage = (asked: PictureAsked) => void sent.push(asked);
}

const picture = (name: string): SongPicture => ({
  beat: { ...newBeat('b', name, 1) },
  ink: {},
  measures: { scale: 0.1, top: 0, height: 96 },
  width: 512,
  height: 162,
  ratio: 1,
});

beforeAll(() => Object.assign(globalThis, { Worker: FakeWorker }));
beforeEach(() => sent.splice(0));

const blob = new Blob(['x']);
const keyNow = (): number => sent[sent.length - 1]!.key;

test('a song is told once, however many of its tiles are asked for; takes stay in the page', () => {
  const song = picture('One');
  const first = song.beat.patterns[0]!;
  const take = { id: 't', seed: 1, at: 0, name: 'A take', parts: {} };
  song.beat = { ...song.beat, patterns: [{ ...first, takes: [take as never] }] };
  askTile(song, 0, jest.fn());
  askTile(song, 1, jest.fn());
  expect(sent.map(({ type }) => type)).toEqual(['song', 'tile', 'tile']);
  const [told] = sent;
  expect(told!.type === 'song' && told!.song.beat.patterns[0]!.takes).toEqual([]);
});

test('a tile comes to the one that asked for it, and only once', () => {
  const song = picture('Two');
  const [third, fourth] = [jest.fn(), jest.fn()];
  askTile(song, 3, third);
  askTile(song, 4, fourth);
  answer({ key: keyNow(), index: 4, blob });
  answer({ key: keyNow(), index: 4, blob });
  expect(third).not.toHaveBeenCalled();
  expect(fourth).toHaveBeenCalledTimes(1);
  expect(fourth).toHaveBeenCalledWith(blob);
});

test('what is no longer wanted is not given: taken back, or of a song that was changed meanwhile', () => {
  const [taken, old] = [jest.fn(), jest.fn()];
  askTile(picture('Three'), 0, taken)();
  answer({ key: keyNow(), index: 0, blob });
  const song = picture('Four');
  askTile(song, 0, old);
  const before = keyNow();
  askTile({ ...song }, 1, jest.fn());
  expect(keyNow()).not.toBe(before);
  answer({ key: before, index: 0, blob });
  expect(taken).not.toHaveBeenCalled();
  expect(old).not.toHaveBeenCalled();
});
