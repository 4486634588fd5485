/** How loud something is to a listener, by ITU-R BS.1770-4. */

/** Taken once: looked up for every sample they would cost more than what they do. */
const { floor, max } = Math;

type Filter = (x: number) => number;

/** A second-order filter by its coefficients, the first of those below being 1. */
const section = (b0: number, b1: number, b2: number, a1: number, a2: number): Filter => {
  let [x1, x2, y1, y2] = [0, 0, 0, 0];
  return (x) => {
    const y = b0 * x + b1 * x1 + b2 * x2 - a1 * y1 - a2 * y2;
    [x2, x1, y2, y1] = [x1, x, y1, y];
    return y;
  };
};

/** The head's shelf, for any rate: the analogue filter that the recommendation's figures at 48 kHz come of. */
const shelf = (rate: number): Filter => {
  const [hertz, gain, q] = [1681.974450955533, 3.999843853973347, 0.7071752369554196];
  const k = Math.tan((Math.PI * hertz) / rate);
  const high = 10 ** (gain / 20);
  const band = high ** 0.4996667741545416;
  const a0 = 1 + k / q + k * k;
  return section(
    (high + (band * k) / q + k * k) / a0,
    (2 * (k * k - high)) / a0,
    (high - (band * k) / q + k * k) / a0,
    (2 * (k * k - 1)) / a0,
    (1 - k / q + k * k) / a0,
  );
};

/** The ear's weighting: low tones count less. */
const highPass = (rate: number): Filter => {
  const [hertz, q] = [38.13547087602444, 0.5003270373238773];
  const k = Math.tan((Math.PI * hertz) / rate);
  const a0 = 1 + k / q + k * k;
  return section(1, -2, 1, (2 * (k * k - 1)) / a0, (1 - k / q + k * k) / a0);
};

const BLOCK = 0.4;
const HOP = 0.1;
const SILENCE = -70;
const BELOW = -10;

const levelOf = (power: number): number => -0.691 + 10 * Math.log10(power);

/**
 * The integrated loudness of two channels.
 *
 * @param rate frames a second
 * @returns LUFS; minus infinity for silence, and for less than 0.4 seconds
 * @example loudnessOf(new Float32Array(8000), new Float32Array(8000), 8000) // -Infinity
 */
export const loudnessOf = (left: Float32Array, right: Float32Array, rate: number): number => {
  const hop = Math.round(HOP * rate);
  const hops = floor(left.length / hop);
  const power = new Float64Array(hops);
  for (const data of [left, right]) {
    const [first, second] = [shelf(rate), highPass(rate)];
    for (let at = 0; at < hops * hop; at++) power[floor(at / hop)]! += second(first(data[at]!)) ** 2 / hop;
  }
  const parts = Math.round(BLOCK / HOP);
  const blocks = Array.from({ length: max(0, hops - parts + 1) }, (_, at) => {
    let sum = 0;
    for (let part = 0; part < parts; part++) sum += power[at + part]!;
    return sum / parts;
  }).filter((block) => levelOf(block) > SILENCE);
  const mean = (of: number[]): number => of.reduce((sum, one) => sum + one, 0) / of.length;
  if (!blocks.length) return -Infinity;
  const gate = levelOf(mean(blocks)) + BELOW;
  return levelOf(mean(blocks.filter((block) => levelOf(block) > gate)));
};
