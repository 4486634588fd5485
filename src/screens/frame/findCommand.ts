import { Index } from 'flexsearch';
import { COMMANDS, type Command } from './commands';

const MOST = 12;

let index: Index | null = null;
const ready = (): Index => {
  if (index) return index;
  index = new Index({ tokenize: 'forward' });
  COMMANDS.forEach(({ name, of, also = '', keys = '' }, at) =>
    index!.add(at, `${name} ${of} ${also} ${keys}`.toLowerCase()),
  );
  return index;
};

/** How well a name fits: as it is, at its beginning, within, or only by its other words. */
const rank = ({ name }: Command, text: string): number => {
  const lower = name.toLowerCase();
  if (lower === text) return 0;
  if (lower.startsWith(text)) return 1;
  return lower.includes(text) ? 2 : 3;
};

/**
 * The commands that some words mean, the likeliest first.
 *
 * @example findCommands('flam')[0].name // "Tight flam"
 */
export const findCommands = (asked: string): readonly Command[] => {
  const text = asked.trim().toLowerCase();
  if (!text) return COMMANDS;
  const found = (ready().search(text, { limit: 100 }) as number[]).map((at) => COMMANDS[at]!);
  return found.sort((a, b) => rank(a, text) - rank(b, text)).slice(0, MOST);
};
