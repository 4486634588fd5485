import { capital } from '../../../core/capital';
import { KEYS, type KeyId } from '../../ui/keys';
import { words } from '../../words/keys';

const DOES: Record<KeyId, string> = words.does;

/** A key as it is read. @example keyText('redo') // "Shift + Ctrl or Cmd + Z, Ctrl or Cmd + Y" */
export const keyText = (id: KeyId): string =>
  KEYS[id]
    .map((press) =>
      capital(
        press
          .split('+')
          .map((name) => words.names[name] ?? name)
          .join(' + '),
      ),
    )
    .join(words.or);

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
    ...KEY_LIST.map(({ keys, does }) => `| ${keys} | ${does} |`),
    '',
  ].join('\n');
