import { heldToRange, type Range } from '../document/ranges';

/** Something that a beat has and that an edit names by its id. */
export type Existing =
  | 'lane'
  | 'pattern'
  | 'take'
  | 'group'
  | 'feel'
  | 'template'
  | 'tray item'
  | 'section'
  | 'place'
  | 'route'
  | 'entry'
  | 'lane preset'
  | 'pattern preset';

/** A part of a document or of what is outside it, given as a whole; its form is that of the schema. */
export type Thing =
  | 'band'
  | 'beat'
  | 'blend'
  | 'bring'
  | 'clip'
  | 'drum map'
  | 'entry'
  | 'feel'
  | 'fill offer'
  | 'grace strokes'
  | 'groove'
  | 'ids by lane'
  | 'map choice'
  | 'meter'
  | 'notes by lane'
  | 'passes'
  | 'pattern'
  | 'place'
  | 'roll'
  | 'section'
  | 'section change'
  | 'song'
  | 'stagger'
  | 'echoes'
  | 'sparks'
  | 'detour'
  | 'route'
  | 'lane patterns'
  | 'lanes'
  | 'switched routes'
  | 'maker'
  | 'key'
  | 'voice'
  | 'loop'
  | 'own kit'
  | 'told slices'
  | 'template';

/** What an edit takes. */
export type Argument =
  | { is: 'figure'; range: Range }
  /** The id of something that is there; of several where it is `ids`. */
  | { is: 'id' | 'ids'; of: Existing }
  /** Steps of lanes. */
  | { is: 'hits' }
  | { is: 'hit' }
  /** An id that nothing has yet. */
  | { is: 'new id' }
  | { is: 'seed' }
  | { is: 'text' }
  | { is: 'yes or no' }
  | { is: 'choice'; of: readonly (string | number)[] }
  /** Or null: what that does is said with the edit. */
  | { is: 'maybe'; of: Argument }
  /** May be left out. */
  | { is: 'optional'; of: Argument }
  /** A change: any of these. */
  | { is: 'some'; of: Record<string, Argument> }
  | { is: 'thing'; of: Thing };

/** A figure within a range. @example figure({ least: 0, most: 1 }).is // "figure" */
export const figure = (range: Range): Argument => ({ is: 'figure', range });
/** The id of something that the beat has. @example id('lane') // { is: "id", of: "lane" } */
export const id = (of: Existing): Argument => ({ is: 'id', of });
/** Several of them. @example ids('lane') // { is: "ids", of: "lane" } */
export const ids = (of: Existing): Argument => ({ is: 'ids', of });
/** One of some values. @example choice([1, 2]) // { is: "choice", of: [1, 2] } */
export const choice = (of: readonly (string | number)[]): Argument => ({ is: 'choice', of });
/** It, or null. @example maybe(SEED) // { is: "maybe", of: { is: "seed" } } */
export const maybe = (of: Argument): Argument => ({ is: 'maybe', of });
/** It, or nothing. @example optional(SEED) // { is: "optional", of: { is: "seed" } } */
export const optional = (of: Argument): Argument => ({ is: 'optional', of });
/** Any of some fields. @example some({ seed: SEED }) // { is: "some", of: { seed: { is: "seed" } } } */
export const some = (of: Record<string, Argument>): Argument => ({ is: 'some', of });
/** A part of a document as a whole. @example thing('roll') // { is: "thing", of: "roll" } */
export const thing = (of: Thing): Argument => ({ is: 'thing', of });
export const HITS: Argument = { is: 'hits' };
export const HIT: Argument = { is: 'hit' };
export const LANES = ids('lane');
export const LANE = id('lane');
export const NEW_ID: Argument = { is: 'new id' };
export const SEED: Argument = { is: 'seed' };
export const TEXT: Argument = { is: 'text' };
export const FLAG: Argument = { is: 'yes or no' };
/** A place in a list, from 0; beyond its end it is the end. */
export const PLACE = figure({ least: 0, most: 4095, whole: true });

/** An edit as it is described: what it does, and what it takes. */
export interface Described<Args> {
  does: string;
  args: { [K in keyof Required<Args>]: Argument };
}

const isPlain = (value: unknown): value is object =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * What is given to an edit, with every figure held to its range; all else is left as it is.
 *
 * @example held(figure({ least: 0, most: 1 }), 3) // 1
 */
export const held = (argument: Argument, value: unknown): unknown => {
  switch (argument.is) {
    case 'figure':
      return typeof value === 'number' ? heldToRange(argument.range, value) : value;
    case 'maybe':
    case 'optional':
      return value === null || value === undefined ? value : held(argument.of, value);
    case 'some':
      return isPlain(value) ? heldAll(argument.of, value) : value;
    default:
      return value;
  }
};

/**
 * The same for all that an edit takes.
 *
 * @example heldAll({ by: figure({ least: 0, most: 1 }) }, { by: 3 }) // { by: 1 }
 */
export const heldAll = <A extends object>(args: Record<string, Argument>, given: A): A => {
  let out: Record<string, unknown> | null = null;
  for (const [name, value] of Object.entries(given) as [string, unknown][]) {
    const argument = args[name];
    const kept = argument ? held(argument, value) : value;
    if (kept !== value) out = { ...(out ?? (given as Record<string, unknown>)), [name]: kept };
  }
  return (out ?? given) as A;
};
