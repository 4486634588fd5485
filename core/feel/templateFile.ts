import { z } from 'zod';
import { isRaw, parsed, shown, type Read } from '../document/reading';
import { shapeSchema, type Shape } from '../document/feelSchema';
import { GRIDS } from '../document/grid';
import { TEMPLATE_VERSION } from './templateText';

const fileSchema = shapeSchema.extend({
  kind: z.literal('ruddik.template'),
  version: z.literal(TEMPLATE_VERSION),
  about: z.string().max(200).optional(),
});

/** The fault of a slot, in words that a person can mend it by. */
const slotFault = (path: PropertyKey[], raw: unknown): string => {
  const slot = (raw as { slots: unknown[] }).slots[Number(path[1])] as Record<PropertyKey, unknown>;
  const where = `Its slot ${Number(path[1]) + 1}`;
  const [, , key] = path;
  if (key === undefined) return `${where} is neither null nor an offset with a velocity.`;
  const value = slot[key];
  const range = key === 'offset' ? '-0.5 to 0.5 steps' : '0 to 1';
  if (value === undefined) return `${where} has no ${String(key)}.`;
  return `${where} has the ${String(key)} ${JSON.stringify(value)}; it goes from ${range}.`;
};

const faultOf = (issue: z.core.$ZodIssue, raw: Record<string, unknown>): string => {
  const { path } = issue;
  if (path[0] === 'slots' && path.length > 1) return slotFault(path, raw);
  if (path[0] === 'slots')
    return issue.code === 'custom'
      ? 'All its slots are open: at least one must have an offset and a velocity.'
      : 'It has no list of 1 to 1024 slots.';
  if (path[0] === 'grid')
    return `Its grid is ${JSON.stringify(raw['grid']) ?? 'missing'}; it is to be one of ${GRIDS.join(', ')}.`;
  if (path[0] === 'version')
    return raw['version'] === undefined
      ? 'It does not say which version of the format it is in.'
      : `It is in version ${shown(raw['version'])}; this Ruddik reads ${TEMPLATE_VERSION}.`;
  if (path[0] === 'name') return 'It has no name of 1 to 80 characters.';
  return issue.code === 'unrecognized_keys'
    ? `It has a part that is not known, “${issue.keys[0]}”.`
    : `Its ${path.map(String).join('.') || 'document'} does not fit.`;
};

/**
 * Reads a template from the text of its file.
 *
 * @returns the template, or a sentence for a person that names the slot and what is wrong; it never throws
 * @example readTemplate(writeTemplate(shape)).ok // true
 */
export const readTemplate = (text: string): Read<Shape & { about?: string | undefined }> => {
  const json = parsed(text);
  if (!json.ok) return json;
  const raw = json.value;
  if (!isRaw(raw) || raw['kind'] !== 'ruddik.template')
    return { ok: false, error: 'It is JSON, but not a groove template of Ruddik.' };
  const result = fileSchema.safeParse(raw);
  if (!result.success) {
    const [issue, ...others] = result.error.issues;
    const more = others.length ? ` (And ${others.length} more like it.)` : '';
    return { ok: false, error: faultOf(issue!, raw) + more };
  }
  const { kind: _kind, version: _version, ...shape } = result.data;
  return { ok: true, value: shape };
};
