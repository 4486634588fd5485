import { keyText } from './keyList';
import MiniSearch from 'minisearch';
import { COMMANDS, type Command } from './commands';

const MOST = 12;

interface Document {
  id: number;
  text: string;
}

let index: MiniSearch<Document> | null = null;
const ready = (): MiniSearch<Document> => {
  if (index) return index;
  index = new MiniSearch({ fields: ['text'], searchOptions: { prefix: true, combineWith: 'AND' } });
  index.addAll(
    COMMANDS.map(({ name, of, also = '', key }, id) => ({
      id,
      text: `${name} ${of} ${also} ${key ? keyText(key) : ''}`,
    })),
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
  const found = ready()
    .search(text)
    .map(({ id }) => COMMANDS[id as number]!);
  return found.sort((a, b) => rank(a, text) - rank(b, text)).slice(0, MOST);
};
