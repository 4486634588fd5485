/** What the other commands stand on, with nothing but Node and npm: packages, fonts, the built app, a browser. */
import { execFileSync, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import zlib from 'node:zlib';

export const ROOT = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');
const at = (...parts) => path.join(ROOT, ...parts);

export const run = (command, args, options = {}) => {
  const done = spawnSync(command, args, { cwd: ROOT, stdio: 'inherit', ...options });
  if (done.error) throw done.error;
  return done.status ?? 1;
};

const must = (what, status) => {
  if (status === 0) return;
  process.stderr.write(`${what} failed; see above.\n`);
  process.exit(1);
};

const changed = (file) => (fs.existsSync(file) ? fs.statSync(file).mtimeMs : 0);

/** Installs from the lock file when it is newer than what is installed. */
export const readyPackages = () => {
  if (changed(at('node_modules', '.package-lock.json')) >= changed(at('package-lock.json'))) return;
  process.stdout.write('Installing packages\n');
  must('Installing', run('npm', ['ci', '--no-fund', '--no-audit']));
};

const FONTS = [
  ['hanken-grotesk', '400'],
  ['hanken-grotesk', '600'],
  ['martian-mono', '400'],
];

/** The fonts come from their packages; they are served under names of their own. */
const readyFonts = () => {
  fs.mkdirSync(at('public', 'fonts'), { recursive: true });
  for (const [font, weight] of FONTS) {
    const name = `${font}-latin-${weight}-normal.woff2`;
    fs.copyFileSync(at('node_modules', '@fontsource', font, 'files', name), at('public', 'fonts', name));
  }
};

const SOURCES = [
  'core',
  'src',
  'demo',
  'public',
  'app.json',
  'babel.config.js',
  'metro.config.js',
  'package-lock.json',
  'scripts/serviceWorker.mjs',
  'scripts/decoders.mjs',
  'scripts/licences.mjs',
];

const newest = (place) => {
  if (!fs.existsSync(place)) return 0;
  const stat = fs.statSync(place);
  if (!stat.isDirectory()) return /\.test\.tsx?$/.test(place) ? 0 : stat.mtimeMs;
  return Math.max(
    0,
    ...fs
      .readdirSync(place)
      .filter((name) => name !== 'fonts')
      .map((name) => newest(path.join(place, name))),
  );
};

const COMPRESSED = /\.(js|css|html|json|svg)$/;

const filesIn = (folder) =>
  fs.readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const place = path.join(folder, entry.name);
    return entry.isDirectory() ? filesIn(place) : [place];
  });

/** Compressed once here rather than at every request. */
const compress = (folder) => {
  for (const file of filesIn(folder).filter((name) => COMPRESSED.test(name))) {
    const bytes = fs.readFileSync(file);
    fs.writeFileSync(`${file}.br`, zlib.brotliCompressSync(bytes));
    fs.writeFileSync(`${file}.gz`, zlib.gzipSync(bytes, { level: 9 }));
  }
};

/**
 * Puts the styles into the pages themselves: they are a few KB, and nothing can be painted before the last of their files has
 * come.
 */
const inlineStyles = (folder) => {
  for (const file of filesIn(folder).filter((name) => name.endsWith('.html'))) {
    const page = fs
      .readFileSync(file, 'utf8')
      .replace(/<link rel="preload"[^>]* as="style"[^>]*>/g, '')
      .replace(
        /<link rel="stylesheet" href="([^"]+)"[^>]*>/g,
        (_, place) => `<style>${fs.readFileSync(path.join(folder, place), 'utf8')}</style>`,
      );
    fs.writeFileSync(file, page);
  }
};

/** What the first screen may weigh, in KiB of JavaScript as it is sent: the page's own pieces, the player and the mixer. */
const MOST_SCRIPT = 366;

/** A first screen that has grown too heavy is no build: whoever made it so sees it here and not on a slow phone. */
const weigh = (folder) => {
  const page = fs.readFileSync(path.join(folder, 'index.html'), 'utf8');
  const scripts = path.join(folder, '_expo', 'static', 'js', 'web');
  const own = new Set([...page.matchAll(/\/static\/js\/web\/([^"/]+\.js)/g)].map(([, name]) => name));
  const asked = fs
    .readdirSync(scripts)
    .filter((name) => own.has(name) || /^(playerWorker|mixer)-\w+\.js$/.test(name));
  const size =
    asked.reduce((sum, name) => sum + fs.statSync(path.join(scripts, `${name}.br`)).size, 0) / 1024;
  process.stdout.write(
    `The first screen asks for ${size.toFixed(1)} of at most ${MOST_SCRIPT} KiB of JavaScript\n`,
  );
  if (own.size && size <= MOST_SCRIPT) return;
  process.stderr.write('The first screen’s JavaScript is too heavy, or was not found\n');
  process.exit(1);
};

/** Builds the web app when it is older than its sources. */
export const readyApp = async () => {
  const stamp = at('dist', '.built');
  if (changed(stamp) > Math.max(...SOURCES.map((source) => newest(at(source))))) return;
  process.stdout.write('Building the app; this takes a minute or two\n');
  // Packages may only just have been installed.
  const { writeServiceWorker } = await import('./serviceWorker.mjs');
  const { writeDecoders } = await import('./decoders.mjs');
  const { packageOf, writeLicences } = await import('./licences.mjs');
  readyFonts();
  fs.rmSync(at('dist'), { recursive: true, force: true });
  const taken = path.join(os.tmpdir(), `ruddik-taken-${process.pid}.json`);
  const env = {
    ...process.env,
    RUDDIK_TAKEN: taken,
    CI: '1',
    EXPO_NO_TELEMETRY: '1',
    EXPO_OFFLINE: '1',
    NODE_ENV: 'production',
  };
  must('Building', run('npx', ['expo', 'export', '--platform', 'web'], { env }));
  const files = JSON.parse(fs.readFileSync(taken, 'utf8'));
  fs.rmSync(taken);
  // A group of routes has no address of its own.
  fs.rmSync(at('dist', '(screens)'), { recursive: true });
  writeLicences(at('dist'), files.map(packageOf));
  await writeDecoders(at('dist'));
  inlineStyles(at('dist'));
  await writeServiceWorker(at('dist'));
  compress(at('dist'));
  weigh(at('dist'));
  fs.writeFileSync(stamp, '');
};

const BROWSER = '/usr/bin/chromium';

/** The browser of the end-to-end tests, from Debian's packages. */
export const readyBrowser = () => {
  if (fs.existsSync(BROWSER)) return;
  process.stdout.write('Installing Chromium from Debian’s packages\n');
  const root = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = (...args) => {
    const [command, ...rest] = [...root, 'apt-get', ...args];
    return run(command, rest, { env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } });
  };
  apt('update');
  must('Installing Chromium', apt('install', '-y', '--no-install-recommends', 'chromium'));
};

/** Runs a TypeScript program of the project. */
export const runTs = (file, args = [], options = {}) =>
  execFileSync(process.execPath, ['--import', 'tsx', at(file), ...args], {
    cwd: ROOT,
    stdio: 'inherit',
    ...options,
  });
