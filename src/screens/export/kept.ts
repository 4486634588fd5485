import { heldHow, type ExportHow } from '../../../core/export/choice';
import { numbered } from '../../../core/document/numbered';
import { browserStorage } from '../../keeping/storage';

/** Choices that were kept by name, for any beat. */
export interface KeptChoice {
  name: string;
  how: ExportHow;
}

const KEY = 'export/kept';
const MOST = 64;

const isNamed = (one: unknown): one is { name: string; how: object } =>
  typeof one === 'object' &&
  one !== null &&
  typeof (one as { name?: unknown }).name === 'string' &&
  typeof (one as { how?: unknown }).how === 'object';

/** What is kept; nothing where it cannot be read. */
export const readKept = async (): Promise<KeptChoice[]> => {
  try {
    const raw = JSON.parse((await browserStorage().getItem(KEY)) ?? '[]') as unknown;
    if (!Array.isArray(raw)) return [];
    return raw
      .filter(isNamed)
      .slice(0, MOST)
      .map(({ name, how }) => ({ name: name.slice(0, 80), how: heldHow(how) }));
  } catch {
    return [];
  }
};

/** Keeps them. @returns false where the browser has no room for it */
export const keepChoices = async (kept: KeptChoice[]): Promise<boolean> => {
  try {
    await browserStorage().setMany({ [KEY]: JSON.stringify(kept.slice(0, MOST)) });
    return true;
  } catch {
    return false;
  }
};

/** With one more; a name that is taken gets a number. */
export const withChoice = (kept: KeptChoice[], choice: KeptChoice): KeptChoice[] => [
  ...kept,
  {
    ...choice,
    name: numbered(
      choice.name,
      kept.map(({ name }) => name),
    ),
  },
];
