import type { Range } from '../document/ranges';
import type { Argument, Described } from './arguments';
import { FEEL_LIST } from './feelList';
import { BEAT_LIST, PATTERN_LIST } from './list';

const rangeText = ({ least, most, whole, unit }: Range): string =>
  `${whole ? 'a whole number' : 'a number'} from ${least} to ${most}${unit ? ` ${unit}` : ''}`;

/** @example withArticle('entry') // "an entry" */
const withArticle = (name: string): string => {
  if (/[^s]s$/.test(name) || name === 'ids by lane') return name;
  return `${/^[aeiou]/.test(name) ? 'an' : 'a'} ${name}`;
};

/**
 * What an argument may be, in words.
 *
 * @example argumentText({ is: 'maybe', of: { is: 'seed' } }) // "a seed, or null"
 */
export const argumentText = (argument: Argument): string => {
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

const editText = ([name, { does, args }]: [string, Described<object>]): string => {
  const taken = Object.entries(args as Record<string, Argument>).map(
    ([arg, argument]) => `  - \`${arg}\`: ${argumentText(argument)}`,
  );
  return [`- **\`${name}\`** ${does}.`, ...taken].join('\n');
};

const listText = (title: string, list: object): string =>
  `## ${title}\n\n${Object.entries(list as Record<string, Described<object>>)
    .map(editText)
    .join('\n')}\n`;

/** The page of the documentation that lists every edit. @example editsPage().startsWith('# Edits') // true */
export const editsPage = (): string =>
  [
    '# Edits',
    '',
    'Every edit is plain data: its name and what it takes. A figure outside its range is held to it; an edit that cannot be made',
    'changes nothing. This page is made from `core/edit/list.ts` and `core/edit/feelList.ts` by `npm run docs`.',
    '',
    listText('Of a pattern', PATTERN_LIST),
    listText('Of a beat', BEAT_LIST),
    listText('Of a feel', FEEL_LIST),
  ].join('\n');
