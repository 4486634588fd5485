import { capital } from '../../../core/capital';
import { KEYS, type KeyId } from '../../ui/keys';
import { words } from '../../words/keys';

const DOES: Record<KeyId, string> = words.does;

/** Broken across two lines a press is hard to read. */
const HELD_TOGETHER = '\u00a0+\u00a0';

const pressText = (press: string): string =>
  capital(
    press
      .split('+')
      .map((name) => words.names[name] ?? name)
      .join(HELD_TOGETHER),
  );

/** The first way to press a key, where there is room for one. @example shortKeyText('redo') // "Shift + Ctrl/Cmd + Z" */
export const shortKeyText = (id: KeyId): string => pressText(KEYS[id][0]);

/** All ways to press a key. @example keyText('redo') // "Shift + Ctrl/Cmd + Z, Ctrl/Cmd + Y" */
export const keyText = (id: KeyId): string => KEYS[id].map(pressText).join(words.or);

/** All keys, for the sheet that lists them and for the guide. */
export const KEY_LIST: { keys: string; does: string }[] = [
  ...(Object.keys(DOES) as KeyId[]).map((id) => ({ keys: keyText(id), does: DOES[id] })),
  ...words.rows.map(([keys, does]) => ({ keys: keys!, does: does! })),
];

/** The list as a page of the documentation. */
export const keysPage = (): string =>
  [
    '# Keys',
    '',
    words.pageIntro,
    '',
    '| key | what it does |',
    '| --- | --- |',
    ...KEY_LIST.map(({ keys, does }) => `| ${keys.replaceAll(HELD_TOGETHER, ' + ')} | ${does} |`),
    '',
  ].join('\n');
