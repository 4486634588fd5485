/** A loop that ships: a groove of the library on one of the kits, rendered when it is wanted. */
export interface ShippedLoop {
  id: string;
  name: string;
  about: string;
  groove: string;
  kit: string;
  tempo: number;
}

/** Loops of our own. */
export const SHIPPED_LIST: readonly ShippedLoop[] = [
  {
    id: 'tarps',
    name: 'Rain on the tarps',
    about: 'Brushes, soft and loose',
    groove: 'Rain on tarps',
    kit: 'drizzle',
    tempo: 96,
  },
  {
    id: 'ferry',
    name: 'Under the ferry deck',
    about: 'A large kit with its room',
    groove: 'Ferry deck',
    kit: 'arches',
    tempo: 104,
  },
  {
    id: 'crates',
    name: 'Crates at closing',
    about: 'Found things, in a hurry',
    groove: 'Noodle queue',
    kit: 'shutters',
    tempo: 112,
  },
  {
    id: 'attic',
    name: 'Wet neon, dusty',
    about: 'As off an old record',
    groove: 'Wet neon',
    kit: 'attic',
    tempo: 88,
  },
];
