/** Archives that swell, lie, lead elsewhere or hold what no one packs: read as a kit, as beats and as MIDI files, and on the command line. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import { strToU8, zipSync } from 'fflate';
import { writeBeats } from '../core/document/text';
import { readBeatsWithSounds } from '../core/files/beatFile';
import { readKit } from '../core/files/kitFile';
import { DEMO_BEATS } from '../demo/beats';
import { unpack } from '../src/workers/unzip';
import type { Tried } from './report';

const TEXT = 'beats.ruddik.json';
const kit = (more: object = {}) =>
  strToU8(
    JSON.stringify({
      kind: 'ruddik.kit',
      version: 13,
      kit: 'quay',
      name: 'Tarps',
      voices: {},
      samples: {},
      ...more,
    }),
  );
const beats = strToU8(writeBeats(DEMO_BEATS));

/** Writes another length into the heads of all files. */
const claiming = (zip: Uint8Array, length: number): Uint8Array => {
  const out = zip.slice();
  const view = new DataView(out.buffer);
  for (let at = 0; at + 30 < out.length; at++) {
    const sign = view.getUint32(at, true);
    if (sign === 0x04034b50) view.setUint32(at + 22, length, true);
    if (sign === 0x02014b50) view.setUint32(at + 24, length, true);
  }
  return out;
};

/** Puts another name of the same length into the place of one, wherever it stands. */
const named = (zip: Uint8Array, from: string, to: string): Uint8Array => {
  const out = zip.slice();
  const text = new TextDecoder('latin1').decode(out);
  for (let at = text.indexOf(from); at >= 0; at = text.indexOf(from, at + 1)) out.set(strToU8(to), at);
  return out;
};

/** Some 40 of them, each by what is wrong with it. */
export const ARCHIVES = (): Record<string, Uint8Array> => {
  const all: Record<string, Uint8Array> = {};
  for (const [kind, name, text] of [
    ['kit', 'kit.json', kit()],
    ['beat', TEXT, beats],
  ] as const) {
    const whole = zipSync({ [name]: text });
    const bomb = zipSync({ [name]: new Uint8Array(300_000_000) }, { level: 9 });
    const odd = zipSync({ [name]: text, 'samples/xxxxxxx.wav': new Uint8Array(40) });
    Object.assign(all, {
      [`${kind}: 300 MB`]: bomb,
      [`${kind}: 300 MB that claim 10 bytes`]: claiming(bomb, 10),
      [`${kind}: claims 4 GB`]: claiming(whole, 0xffffffff),
      [`${kind}: claims nothing`]: claiming(whole, 0),
      [`${kind}: torn in its head`]: whole.slice(0, 20),
      [`${kind}: torn in the middle`]: whole.slice(0, whole.length >> 1),
      [`${kind}: its end cut off`]: whole.slice(0, -23),
      [`${kind}: __proto__`]: named(odd, 'samples/xxxxxxx.wav', '__proto__/a/bbb.wav'),
      [`${kind}: constructor`]: named(odd, 'samples/xxxxxxx.wav', 'constructor/aa.wavv'),
      [`${kind}: leads out`]: named(odd, 'samples/xxxxxxx.wav', '../../../../aaa.wav'),
      [`${kind}: from the root`]: named(odd, 'samples/xxxxxxx.wav', '/etc/passwd/aaa.wav'),
      [`${kind}: of nothing`]: named(odd, 'samples/xxxxxxx.wav', '\0'.repeat(19)),
      [`${kind}: 2,000 files`]: zipSync(
        Object.fromEntries<Uint8Array>([
          [name, text] as const,
          ...Array.from({ length: 2000 }, (_, at) => [`${at}.wav`, new Uint8Array(1)] as const),
        ]),
      ),
      [`${kind}: no JSON`]: zipSync({ [name]: strToU8('{') }),
      [`${kind}: JSON of nothing`]: zipSync({ [name]: strToU8('null') }),
      [`${kind}: nested without end`]: zipSync({ [name]: strToU8('['.repeat(100_000)) }),
      [`${kind}: within another`]: zipSync({ 'inner.zip': whole }),
    });
  }
  return Object.assign(all, {
    'kit: samples on __proto__': zipSync({
      'kit.json': strToU8(
        `{"kind":"ruddik.kit","version":13,"kit":"quay","name":"T","voices":{},"samples":{"__proto__":"constructor"}}`,
      ),
    }),
    'kit: of a later version': zipSync({ 'kit.json': kit({ version: 999 }) }),
    'kit: a name of blanks': zipSync({ 'kit.json': kit({ name: '   ' }) }),
    empty: zipSync({}),
    'no bytes': new Uint8Array(0),
    'two letters': strToU8('PK'),
    'noise after PK': Uint8Array.from({ length: 4000 }, (_, at) =>
      at < 4 ? [0x50, 0x4b, 3, 4][at]! : (at * 131) % 256,
    ),
  });
};

/** So long one may take, in ms. */
const MOST_MS = 4000;

const nameOf = () => Promise.resolve('a'.repeat(64));
const SENTENCE = /^[A-Z“].*[.)]$/;

const spoken = (error: string): string | null =>
  SENTENCE.test(error) && !/undefined|NaN|object Object|TypeError/.test(error) ? null : `it says “${error}”`;

/** @param shell whether the command line is tried too */
export const archives = async (shell = true): Promise<Tried> => {
  const faults: string[] = [];
  const folder = mkdtempSync(path.join(tmpdir(), 'faults-zip-'));
  const all = Object.entries(ARCHIVES());
  for (const [name, bytes] of all) {
    const from = performance.now();
    try {
      for (const read of [await readKit(bytes, nameOf), await readBeatsWithSounds(bytes, nameOf)]) {
        const said = read.ok ? null : spoken(read.error);
        if (said) faults.push(`${name}: ${said}`);
      }
      for (const { why } of unpack(bytes, 'x').left) if (spoken(why)) faults.push(`${name}: ${spoken(why)}`);
    } catch (fault) {
      faults.push(`${name}: ${(fault as Error).message}`);
    }
    const took = performance.now() - from;
    if (took > MOST_MS) faults.push(`${name}: ${took.toFixed(0)} ms`);
    if (!shell) continue;
    const file = path.join(folder, 'x.zip');
    writeFileSync(file, bytes);
    for (const command of [
      ['export', file, path.join(folder, 'x.mid')],
      ['kit', file],
    ]) {
      const { status, stderr } = spawnSync(path.join(__dirname, '..', 'bin', 'ruddik'), command, {
        encoding: 'utf8',
      });
      const lines = stderr
        .trim()
        .split('\n')
        .filter((line) => !line.startsWith('npm warn'));
      if (status !== 0 && (status !== 1 || lines.length !== 1))
        faults.push(`${name}, ${command[0]}: ${status} ${lines.join(' / ').slice(0, 200)}`);
    }
  }
  rmSync(folder, { recursive: true, force: true });
  return {
    what: `kit and beat archives${shell ? ', in the app’s readers and on the command line' : ''}`,
    tried: all.length,
    faults,
  };
};
