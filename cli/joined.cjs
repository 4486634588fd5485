'use strict';
/**
 * The command line in one file of JavaScript: read as its hundreds of modules, each start would take seconds. It is joined at
 * the first start and again when any of its sources is newer.
 */
const fs = require('node:fs');
const Module = require('node:module');
const path = require('node:path');

const ROOT = path.resolve(__dirname, '..');
const FOLDER = path.join(ROOT, 'node_modules', '.cache', 'ruddik');
const JOINED = path.join(FOLDER, 'ruddik.cjs');
/** What it was made of, beside it. */
const SOURCES = path.join(FOLDER, 'sources.json');

const isFresh = () => {
  try {
    const made = fs.statSync(JOINED).mtimeMs;
    const sources = JSON.parse(fs.readFileSync(SOURCES, 'utf8'));
    return sources.every((file) => fs.statSync(path.join(ROOT, file)).mtimeMs < made);
  } catch {
    return false;
  }
};

/** Whoever starts at the same time finds the old file or the new one, and never half of one. */
const place = (file, text) => {
  const aside = `${file}.${process.pid}`;
  fs.writeFileSync(aside, text);
  fs.renameSync(aside, file);
};

const join = () => {
  const { metafile, outputFiles } = require('esbuild').buildSync({
    absWorkingDir: ROOT,
    entryPoints: ['cli/main.ts'],
    bundle: true,
    platform: 'node',
    target: 'node20',
    // Less to read at each start.
    minifyWhitespace: true,
    metafile: true,
    write: false,
    outfile: JOINED,
  });
  const [{ contents }] = outputFiles;
  const own = Object.keys(metafile.inputs).filter((file) => !file.startsWith('node_modules'));
  try {
    fs.mkdirSync(FOLDER, { recursive: true });
    place(SOURCES, JSON.stringify([...own, 'package-lock.json', 'cli/joined.cjs']));
    place(JOINED, contents);
  } catch {
    // Where nothing can be kept, it is joined each time.
  }
  return Buffer.from(contents).toString('utf8');
};

/** Runs the command line with the arguments of the process. */
module.exports = () => {
  if (isFresh()) return void require(JOINED);
  const joined = new Module(JOINED, module);
  joined.filename = JOINED;
  joined.paths = Module._nodeModulePaths(FOLDER);
  joined._compile(join(), JOINED);
};
