import type { Template } from '../document/feelSchema';
import { TEMPLATE_KITS } from './templateKits';
import { TEMPLATE_LINES } from './templateLines';

const cycled = (text: string, slots: number): number[] => {
  const values = text.split(' ').map(Number);
  return Array.from({ length: slots }, (_, at) => values[at % values.length]! / 100);
};

const slotsOf = (slots: number, late: string, force: string) => {
  const velocities = cycled(force, slots);
  return cycled(late, slots).map((offset, at) => ({ offset, velocity: velocities[at]! }));
};

/** The templates of the library, our own. */
export const TEMPLATES: Template[] = [...TEMPLATE_LINES, ...TEMPLATE_KITS].map(
  ({ id, name, about, meter, grid, slots, late, force, groups }) => ({
    id,
    name,
    about,
    meter: meter ?? { beats: 4, unit: 4 },
    grid,
    slots: slotsOf(slots, late, force),
    ...(groups && {
      groups: Object.fromEntries(
        Object.entries(groups).map(([group, [own, hard]]) => [group, slotsOf(slots, own, hard)]),
      ),
    }),
  }),
);
