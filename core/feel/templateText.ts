import type { Shape } from '../document/feelSchema';

/** The version of template files that this code reads and writes. */
export const TEMPLATE_VERSION = 1;

/**
 * The text of a template file. Figures are kept to six places, far below a tick.
 *
 * @example JSON.parse(writeTemplate(shape)).kind // "ruddik.template"
 */
export const writeTemplate = (shape: Shape & { about?: string | undefined }): string => {
  const round = (value: number) => Math.round(value * 1e6) / 1e6;
  const slots = shape.slots.map((slot) =>
    slot ? { offset: round(slot.offset), velocity: round(slot.velocity) } : null,
  );
  const head = { kind: 'ruddik.template', version: TEMPLATE_VERSION, name: shape.name };
  const about = shape.about ? { about: shape.about } : {};
  return `${JSON.stringify({ ...head, ...about, grid: shape.grid, slots }, null, 1)}\n`;
};
