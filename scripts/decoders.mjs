/** Decoders whose licence wants that they can be exchanged: each is a file of its own, fetched when a file of its kind is read. */
import fs from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';

const ROOT = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');

/** By the name of the file: the package that is bundled, and whose work is in it. */
export const DECODERS = [
  {
    name: 'mp3',
    from: '@audio/decode-mp3',
    packages: ['@audio/decode-mp3', 'mpg123-decoder', '@wasm-audio-decoders/common'],
    holds: 'libmpg123 (LGPL-2.1)',
  },
  {
    name: 'flac',
    from: '@audio/decode-flac',
    packages: ['@audio/decode-flac', '@wasm-audio-decoders/flac', 'codec-parser'],
    holds: 'codec-parser (LGPL-3.0-or-later), libFLAC (BSD)',
  },
  {
    name: 'vorbis',
    from: '@audio/decode-vorbis',
    packages: ['@audio/decode-vorbis', '@wasm-audio-decoders/ogg-vorbis', 'codec-parser'],
    holds: 'codec-parser (LGPL-3.0-or-later), libvorbis (BSD)',
  },
];

/** Writes them into `decoders` of a folder that was built: each gives its function under a name of its own. */
export const writeDecoders = async (folder) => {
  fs.mkdirSync(path.join(folder, 'decoders'), { recursive: true });
  for (const { name, from, holds } of DECODERS)
    await build({
      stdin: { contents: `export { default as decode } from '${from}';`, resolveDir: ROOT },
      outfile: path.join(folder, 'decoders', `${name}.js`),
      bundle: true,
      platform: 'browser',
      format: 'iife',
      globalName: `ruddikDecoder_${name}`,
      target: 'es2022',
      minifySyntax: true,
      minifyWhitespace: true,
      legalComments: 'inline',
      banner: { js: `/* ${holds}; see /licences */` },
      logLevel: 'error',
    });
};
