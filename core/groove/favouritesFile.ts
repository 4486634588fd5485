import { z } from 'zod';
import { faultText, isRaw, parsed, type Read } from '../document/reading';
import type { Favourites } from './favourites';

const MOST = 20_000;
const schema = z.strictObject({
  kind: z.literal('ruddik.keepers'),
  version: z.literal(1),
  grooves: z.array(z.strictObject({ id: z.string().min(1).max(1000), name: z.string().max(400) })).max(MOST),
  folders: z.array(z.array(z.string().max(400)).min(1).max(64)).max(MOST),
});

/**
 * Reads a list of keepers, or says in a sentence why it cannot be read.
 *
 * @example readFavourites(favouritesText(NO_FAVOURITES)).ok // true
 */
export const readFavourites = (text: string): Read<Favourites> => {
  const json = parsed(text);
  if (!json.ok) return json;
  const raw = json.value;
  if (!isRaw(raw) || raw['kind'] !== 'ruddik.keepers')
    return { ok: false, error: 'It is JSON, but not a list of keepers.' };
  const read = schema.safeParse(raw);
  if (!read.success) return { ok: false, error: faultText(read.error.issues, raw) };
  return { ok: true, value: { grooves: read.data.grooves, folders: read.data.folders } };
};
