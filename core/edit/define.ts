import { heldToRange, type Range } from '../document/ranges';
import type { Beat, Pattern } from '../document/schema';
import type { Spot } from './spots';

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

/** What an argument is for whoever gives it: the documentation, scripts and the tests that make some go by it. */
export type About =
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
  | { is: 'maybe'; of: About }
  /** May be left out. */
  | { is: 'optional'; of: About }
  /** A change: any of these. */
  | { is: 'some'; of: Arguments }
  /** A part of a document or of what is outside it, given as a whole; its form is that of the schema. */
  | { is: 'thing'; of: string };

/** The type of an argument; nothing stands under it. */
declare const TYPE: unique symbol;

/**
 * An argument of an edit: what it is in words that tests and scripts read, and its type, which the compiler reads. No schema of
 * Zod: it would come to the first screen with the edits, 48 KiB of script, and what an edit gives is read by the schema anyway.
 */
export type Argument<T> = About & { readonly [TYPE]?: T };

/** The type of an argument. */
type TypeOf<A> = A extends { readonly [TYPE]?: infer T } ? T : never;

/** The arguments of an edit, by name. */
export type Arguments = Record<string, About>;

type MayBeLeftOut<S> = { [K in keyof S]: S[K] extends { is: 'optional' } ? K : never }[keyof S];

/** The values given for arguments. */
type Given<S> = { [K in Exclude<keyof S, MayBeLeftOut<S>>]: TypeOf<S[K]> } & {
  [K in MayBeLeftOut<S>]?: TypeOf<S[K]>;
};

/** A figure within a range; one outside is held to it. @example figure({ least: 0, most: 1 }).is // "figure" */
export const figure = (range: Range): Argument<number> => ({ is: 'figure', range });
/** The id of something that the beat has. @example id('lane') // { is: "id", of: "lane" } */
export const id = (of: Existing): Argument<string> => ({ is: 'id', of });
/** Several of them. @example ids('lane') // { is: "ids", of: "lane" } */
export const ids = (of: Existing): Argument<string[]> => ({ is: 'ids', of });
/** One of some values. @example choice([1, 2]) // { is: "choice", of: [1, 2] } */
export const choice = <const T extends string | number>(of: readonly T[]): Argument<T> => ({
  is: 'choice',
  of,
});
/** It, or null. @example maybe(SEED) // { is: "maybe", of: { is: "seed" } } */
export const maybe = <T>(of: Argument<T>): Argument<T | null> => ({ is: 'maybe', of });
/** It, or nothing. @example optional(SEED) // { is: "optional", of: { is: "seed" } } */
export const optional = <T>(of: Argument<T>): Argument<T | undefined> & { is: 'optional' } => ({
  is: 'optional',
  of,
});
/** Any of some fields. @example some({ seed: SEED }) // { is: "some", of: { seed: { is: "seed" } } } */
export const some = <S extends Arguments>(of: S): Argument<{ [K in keyof S]?: TypeOf<S[K]> }> => ({
  is: 'some',
  of,
});
/** A part of a document as a whole. @example thing('roll') // { is: "thing", of: "roll" } */
export const thing = <T>(of: string): Argument<T> => ({ is: 'thing', of });

export const HITS: Argument<Spot[]> = { is: 'hits' };
export const HIT: Argument<Spot> = { is: 'hit' };
export const LANES = ids('lane');
export const LANE = id('lane');
export const NEW_ID: Argument<string> = { is: 'new id' };
export const SEED: Argument<number> = { is: 'seed' };
export const TEXT: Argument<string> = { is: 'text' };
export const FLAG: Argument<boolean> = { is: 'yes or no' };
/** A place in a list, from 0; beyond its end it is the end. */
export const PLACE = figure({ least: 0, most: 4095, whole: true });
/** A change of the name. */
export const NAME = { name: TEXT };

/** Passes of a section. */
const PASS = figure({ least: 0, most: 4096, whole: true });
/** Passes that were played, from one up to another. */
export const FROM_TO = { from: PASS, to: PASS };

/** An edit: what it does, what it takes, and what comes of it. */
export interface Edit<On, Rest extends unknown[] = []> {
  does: string;
  args: Arguments;
  run: (on: On, args: never, ...rest: Rest) => On;
}

/** The values that an edit is given. */
export type ArgsOf<E> = E extends { run: (on: never, args: infer A, ...rest: never) => unknown } ? A : never;

/**
 * Describes an edit, once: its type, its place in the documentation, what scripts may give it and what the tests try follow
 * from it.
 *
 * @example
 * defineEdit<number>()({ does: 'Makes it softer', args: { by: SEED }, run: (n, a) => n - a.by }).run(7, { by: 2 }) // 5
 */
export const defineEdit =
  <On, Rest extends unknown[] = []>() =>
  <const S extends Arguments>(edit: {
    does: string;
    args: S;
    run: (on: On, args: Given<S>, ...rest: Rest) => On;
  }) =>
    edit;

/** An edit of a pattern. The beat is there to be looked at; `shown` is false for a pattern that is only edited along. */
export const patternEdit = defineEdit<Pattern, [beat: Beat, shown: boolean]>();
/** An edit of a beat as a whole. */
export const beatEdit = defineEdit<Beat>();

const isPlain = (value: unknown): value is object =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const held = (about: About, value: unknown): unknown => {
  switch (about.is) {
    case 'figure':
      return typeof value === 'number' ? heldToRange(about.range, value) : value;
    case 'maybe':
    case 'optional':
      return value === null || value === undefined ? value : held(about.of, value);
    case 'some':
      return isPlain(value) ? heldAll(about.of, value) : value;
    default:
      return value;
  }
};

/**
 * The arguments of an edit with every figure held to its range; all else is left as it is.
 *
 * @example heldAll({ by: figure({ least: 0, most: 1 }) }, { by: 3 }) // { by: 1 }
 */
export const heldAll = <A extends object>(args: Arguments, given: A): A => {
  let out: Record<string, unknown> | null = null;
  for (const [name, value] of Object.entries(given) as [string, unknown][]) {
    const argument = Object.hasOwn(args, name) ? args[name] : undefined;
    const kept = argument ? held(argument, value) : value;
    if (kept !== value) out = { ...(out ?? (given as Record<string, unknown>)), [name]: kept };
  }
  return (out ?? given) as A;
};
