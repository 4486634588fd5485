import { strToU8, zipSync } from 'fflate';
import { readKit } from './kitFile';
import { unpackSamples } from './samplePack';

/** Writes another length into the first file's header: what it holds is as it was. */
const claiming = (zip: Uint8Array, length: number): Uint8Array => {
  const out = zip.slice();
  new DataView(out.buffer).setUint32(22, length, true);
  return out;
};

const names = (zip: Uint8Array): string[] => {
  const out = unpackSamples(zip);
  if (!out.ok) throw new Error(out.error);
  return [...out.value.keys()];
};
const errorOf = (zip: Uint8Array) => {
  const out = unpackSamples(zip);
  return out.ok ? '' : out.error;
};

test('what was packed comes out, stored or pressed, whatever its name is', () => {
  const files = { 'kit.json': strToU8('{}'), 'samples/a.wav': new Uint8Array(70_000).fill(7) };
  for (const level of [0, 6] as const) {
    const out = unpackSamples(zipSync(files, { level }));
    expect(out.ok && Object.fromEntries(out.value)).toEqual(files);
  }
  const odd = zipSync({ ['__proto__x']: [strToU8('1'), {}], constructor: [strToU8('2'), {}] } as never);
  // fflate takes names from an object, so the one that none can have is written into the archive afterwards.
  const proto = Uint8Array.from(odd);
  const text = new TextDecoder('latin1').decode(proto);
  for (let at = text.indexOf('__proto__x'); at >= 0; at = text.indexOf('__proto__x', at + 1))
    proto.set(strToU8('__proto__/'), at);
  expect(names(proto)).toEqual(['__proto__/', 'constructor']);
});

test('a file that holds more than it claims is ended there, one that swells too', () => {
  const bomb = zipSync({ 'kit.json': new Uint8Array(60_000_000) }, { level: 9 });
  expect(errorOf(claiming(bomb, 10))).toBe('It is a ZIP, but a file in it is longer than it says.');
  expect(errorOf(claiming(bomb, 500_000_000))).toContain('more than such a file may hold');
  expect(errorOf(zipSync({ 'kit.json': new Uint8Array(70_000_000) }, { level: 9 }))).toBe(
    'A text in it is longer than any of Ruddik is (64 MB).',
  );
  const many = Object.fromEntries(Array.from({ length: 1100 }, (_, at) => [`${at}.wav`, new Uint8Array(1)]));
  expect(errorOf(zipSync(many))).toContain('1,024 files');
});

test('a torn one is told as damaged, wherever it is torn', async () => {
  const whole = zipSync({
    'kit.json': strToU8(JSON.stringify({ kind: 'ruddik.kit', version: 1 }).repeat(40)),
  });
  for (const length of [5, 20, 40, 60]) {
    expect(errorOf(whole.subarray(0, length))).toBe('It is a ZIP, but a damaged one.');
    const kit = await readKit(whole.slice(0, length), () => Promise.resolve('')).catch(String);
    expect(kit).toMatchObject({ ok: false });
  }
});
