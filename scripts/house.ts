/** Draws the house: the rooms of core and what stands on them, and which of them use which, as the code has it. */
import fs from 'node:fs';
import path from 'node:path';

/** The rooms of core in the order in which they may use one another: the lint goes by the same list. */
export const CORE = JSON.parse(fs.readFileSync('core/rooms.json', 'utf8')) as string[];
const UPPER = [
  'words',
  'web',
  'store',
  'keeping',
  'grooves',
  'audio',
  'workers',
  'ports',
  'ui',
  'strings',
  'screens',
];

const filesIn = (folder: string): string[] =>
  fs.readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const at = path.join(folder, entry.name);
    if (entry.isDirectory()) return filesIn(at);
    return /\.tsx?$/.test(at) && !/\.(test|mock)\.tsx?$/.test(at) ? [at] : [];
  });

/** The room of a file: of core its folder, above it that of src; null where it is in none. */
const roomOf = (file: string): string | null => {
  const [top, room] = path.relative('.', file).split(path.sep);
  if (top === 'core' && CORE.includes(room!)) return room!;
  return top === 'src' && UPPER.includes(room!) ? room! : null;
};

/** How many imports go from one room to another. */
export const arrowsOf = (): Map<string, number> => {
  const arrows = new Map<string, number>();
  for (const file of [...filesIn('core'), ...filesIn('src')]) {
    const from = roomOf(file);
    if (!from) continue;
    for (const [, target] of fs.readFileSync(file, 'utf8').matchAll(/from '(\.[^']*)'/g)) {
      const to = roomOf(path.resolve(path.dirname(file), target!));
      if (!to || to === from) continue;
      const key = `${from} ${to}`;
      arrows.set(key, (arrows.get(key) ?? 0) + 1);
    }
  }
  return arrows;
};

const ROW = 44;
const WIDE = { left: 30, core: 300, room: 150 };

/** Rooms of core from the bottom up, an arc for each way that imports go: as thick as they are many. */
export const housePicture = (): string => {
  const arrows = arrowsOf();
  const rows = [...CORE, ...UPPER];
  const height = rows.length * ROW + 40;
  const y = (room: string) => height - 30 - rows.indexOf(room) * ROW;
  const x = WIDE.core;
  const arcs = [...arrows].map(([key, count]) => {
    const [from, to] = key.split(' ') as [string, string];
    const [a, b] = [y(from), y(to)];
    const down = b > a;
    const bulge = 26 + Math.abs(a - b) * 0.42;
    const side = down ? x + WIDE.room : x;
    const way = down ? side + bulge : side - bulge;
    const width = Math.min(5, 0.6 + Math.log2(count) * 0.5).toFixed(1);
    return `<path d="M${side} ${a} C${way} ${a} ${way} ${b} ${side} ${b}" stroke="${down ? '#2C6591' : '#A8402A'}" stroke-width="${width}" fill="none" opacity="0.55"><title>${from} uses ${to}: ${count}</title></path>`;
  });
  const boxes = rows.map(
    (room) =>
      `<g><rect x="${x}" y="${y(room) - 15}" width="${WIDE.room}" height="30" rx="6" fill="${CORE.includes(room) ? '#FFFDF7' : '#F3EFE6'}" stroke="#5B6A64"/><text x="${x + WIDE.room / 2}" y="${y(room) + 5}" text-anchor="middle" font-family="sans-serif" font-size="14" fill="#1D2926">${CORE.includes(room) ? 'core/' : 'src/'}${room}</text></g>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" width="860" height="${height}" viewBox="0 0 860 ${height}"><rect width="860" height="${height}" fill="#F3EFE6"/>${arcs.join('')}${boxes.join('')}</svg>\n`;
};
