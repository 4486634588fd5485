import fc from 'fast-check';
import { createMixer, mix, type MixNote } from './mixer';

const RATE = 8000;
/** A ramp: what is read tells where in the sound it was. */
const RAMP = Float32Array.from({ length: 20000 }, (_, at) => at / 32768);

const note = (frame: number, change: Partial<MixNote> = {}): MixNote => ({
  frame,
  sound: 0,
  layer: 0,
  left: 1,
  right: 1,
  group: 0,
  lane: 3,
  ...change,
});

/** What so many frames sound like, mixed in pieces. */
const mixed = (notes: MixNote[], frames: number, piece: number): Float32Array => {
  const mixer = createMixer(RATE);
  mixer.limiting = false;
  mixer.sounds = [[RAMP]];
  mixer.queue = [...notes];
  const out = new Float32Array(frames);
  const side = new Float32Array(piece);
  for (let at = 0; at < frames; at += piece) {
    const left = new Float32Array(piece);
    mix(mixer, left, side, at);
    out.set(left.subarray(0, Math.min(piece, frames - at)), at);
  }
  return out;
};

const SLIDE = 0.05;

test('a note slides from the speed of the one that still sounds to its own, evenly in pitch', () => {
  const out = mixed([note(0), note(1000, { speed: 2, slide: SLIDE })], 3000, 128);
  // The first has faded after 4 ms; from there on the ramp’s slope is the speed.
  const speedAt = (frame: number) => (out[frame + 1]! - out[frame]!) * 32768;
  const ends = 1000 + SLIDE * RATE;
  expect(speedAt(1000 + 200)).toBeCloseTo(2 ** 0.5, 2);
  expect(speedAt(ends + 10)).toBeCloseTo(2, 2);
  expect(speedAt(2500)).toBeCloseTo(2, 2);
  for (let at = 1040; at < ends - 1; at++) expect(speedAt(at + 1)).toBeGreaterThanOrEqual(speedAt(at) - 0.02);
});

test('with nothing sounding on its lane it does not slide, and what is of another lane is left alone', () => {
  const speed = (out: Float32Array, frame: number) => (out[frame + 1]! - out[frame]!) * 32768;
  expect(speed(mixed([note(10, { speed: 2, slide: SLIDE })], 400, 128), 20)).toBeCloseTo(2, 2);
  const other = mixed([note(0, { lane: 1, left: 0 }), note(100, { speed: 2, slide: SLIDE })], 400, 128);
  expect(speed(other, 110)).toBeCloseTo(2, 2);
});

test('in whatever pieces it is mixed, it sounds the same', () => {
  const notes = [note(0), note(500, { speed: 1.5, slide: SLIDE }), note(700, { speed: 0.5, slide: 0.2 })];
  const whole = mixed(notes, 4000, 4000);
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 700 }), (piece) => {
      const out = mixed(notes, 4000, piece);
      for (let at = 0; at < 4000; at++) if (Math.abs(out[at]! - whole[at]!) > 1e-6) return false;
      return true;
    }),
    { numRuns: 30 },
  );
});
