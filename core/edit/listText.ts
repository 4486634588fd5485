import type { Range } from '../document/ranges';
import { FEEL_EDITS } from './defined/feel';
import { type About, type Arguments } from './define';
import { BEAT_EDITS, PATTERN_EDITS } from './edits';

const rangeText = ({ least, most, whole, unit }: Range): string =>
  `${whole ? 'a whole number' : 'a number'} from ${least} to ${most}${unit ? ` ${unit}` : ''}`;

/** @example withArticle('entry') // "an entry" */
const withArticle = (name: string): string => {
  if (/[^s]s$/.test(name) || name === 'ids by lane') return name;
  return `${/^[aeiou]/.test(name) ? 'an' : 'a'} ${name}`;
};

/**
 * The values that an argument may have, in words.
 *
 * @example argumentText(maybe(SEED)) // "a seed, or null"
 */
export const argumentText = (argument: About): string => {
  switch (argument.is) {
    case 'figure':
      return rangeText(argument.range);
    case 'id':
      return `the id of ${withArticle(argument.of)}`;
    case 'ids':
      return `ids of ${argument.of}s`;
    case 'hits':
      return 'hits: lanes and steps';
    case 'hit':
      return 'a lane and a step';
    case 'seed':
      return 'a seed';
    case 'text':
      return 'words';
    case 'choice':
      return argument.of.length > 12
        ? `one of ${argument.of.length}: ${argument.of[0]}, …`
        : argument.of.join(', ');
    case 'maybe':
      return `${argumentText(argument.of)}, or null`;
    case 'optional':
      return `${argumentText(argument.of)}; may be left out`;
    case 'some':
      return `any of ${Object.entries(argument.of)
        .map(([name, one]) => `\`${name}\` (${argumentText(one)})`)
        .join(', ')}`;
    case 'thing':
      return withArticle(argument.of);
    default:
      return argument.is === 'new id' ? 'a new id' : argument.is;
  }
};

type Listed = Record<string, { does: string; args: Arguments }>;

const editText = ([name, { does, args }]: [string, Listed[string]]): string => {
  const taken = Object.entries(args).map(([arg, argument]) => `  - \`${arg}\`: ${argumentText(argument)}`);
  return [`- **\`${name}\`** ${does}.`, ...taken].join('\n');
};

const listText = (title: string, list: Listed): string =>
  `## ${title}\n\n${Object.entries(list).map(editText).join('\n')}\n`;

/** The page of the documentation that lists every edit. @example editsPage().startsWith('# Edits') // true */
export const editsPage = (): string =>
  [
    '# Edits',
    '',
    'Every edit is plain data: its name and what it takes. A figure outside its range is held to it; an edit that cannot be made',
    'changes nothing. This page is made from `core/edit/defined/` by `npm run docs`.',
    '',
    listText('Of a pattern', PATTERN_EDITS),
    listText('Of a beat', BEAT_EDITS),
    listText('Of a feel', FEEL_EDITS),
  ].join('\n');
