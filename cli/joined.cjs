'use strict';
/**
 * The command line in one file of JavaScript: read as its hundreds of modules, each start would take seconds. It is joined at
 * the first start and again when any of its sources is newer.
 */
const fs = require('node:fs');
const Module = require('node:module');
const path = require('node:path');

const placesOf = (root) => {
  const folder = path.join(root, 'node_modules', '.cache', 'ruddik');
  // What it was made of lies beside it.
  return { folder, joined: path.join(folder, 'ruddik.cjs'), sources: path.join(folder, 'sources.json') };
};

const isFresh = (root, { joined, sources }) => {
  try {
    const made = fs.statSync(joined).mtimeMs;
    const files = JSON.parse(fs.readFileSync(sources, 'utf8'));
    return files.every((file) => fs.statSync(path.join(root, file)).mtimeMs < made);
  } catch {
    return false;
  }
};

/** Whoever starts at the same time finds the old file or the new one, and never half of one. */
const put = (file, text) => {
  const aside = `${file}.${process.pid}`;
  fs.writeFileSync(aside, text);
  fs.renameSync(aside, file);
};

const join = (root, { folder, joined, sources }) => {
  const { metafile, outputFiles } = require('esbuild').buildSync({
    absWorkingDir: root,
    entryPoints: ['cli/main.ts'],
    bundle: true,
    platform: 'node',
    target: 'node20',
    // Less to read at each start.
    minifyWhitespace: true,
    metafile: true,
    write: false,
    outfile: joined,
  });
  const [{ contents }] = outputFiles;
  const own = Object.keys(metafile.inputs).filter((file) => !file.startsWith('node_modules'));
  try {
    fs.mkdirSync(folder, { recursive: true });
    put(sources, JSON.stringify([...own, 'package-lock.json', 'cli/joined.cjs']));
    put(joined, contents);
  } catch {
    // Where nothing can be kept, it is joined each time.
  }
  return Buffer.from(contents).toString('utf8');
};

/** Runs the command line with the arguments of the process. @param root the project that it is of */
module.exports = (root = path.resolve(__dirname, '..')) => {
  const places = placesOf(root);
  if (isFresh(root, places)) return void require(places.joined);
  const made = new Module(places.joined, module);
  made.filename = places.joined;
  made.paths = Module._nodeModulePaths(places.folder);
  made._compile(join(root, places), places.joined);
};
