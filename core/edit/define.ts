import { z } from 'zod';
import { heldToRange, type Range } from '../document/ranges';
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
  | { is: 'maybe'; of: z.ZodType }
  /** May be left out. */
  | { is: 'optional'; of: z.ZodType }
  /** A change: any of these. */
  | { is: 'some'; of: Record<string, z.ZodType> }
  /** A part of a document or of what is outside it, given as a whole. */
  | { is: 'thing'; of: string };

const ABOUT = new WeakMap<z.ZodType, About>();

/** What an argument of an edit is. @throws where it was made by none of the ways below @example aboutOf(SEED).is // "seed" */
export const aboutOf = (argument: z.ZodType): About => {
  const about = ABOUT.get(argument);
  if (!about) throw new Error('An argument of an edit is not described.');
  return about;
};

const told = <T extends z.ZodType>(schema: T, about: About): T => {
  ABOUT.set(schema, about);
  return schema;
};

/** A figure within a range; one outside is held to it. @example figure({ least: 0, most: 1 }).safeParse(7).success // true */
export const figure = (range: Range) => told(z.number(), { is: 'figure', range });
/** The id of something that the beat has. @example aboutOf(id('lane')) // { is: "id", of: "lane" } */
export const id = (of: Existing) => told(z.string(), { is: 'id', of });
/** Several of them. @example aboutOf(ids('lane')) // { is: "ids", of: "lane" } */
export const ids = (of: Existing) => told(z.array(z.string()), { is: 'ids', of });
/** One of some values. @example choice(['a', 'b']).safeParse('c').success // false */
export const choice = <const T extends readonly (string | number)[]>(of: T) =>
  told(z.literal(of as readonly T[number][]), { is: 'choice', of });
/** It, or null. @example maybe(SEED).parse(null) // null */
export const maybe = <T extends z.ZodType>(of: T) => told(z.nullable(of), { is: 'maybe', of });
/** It, or nothing. @example optional(SEED).parse(undefined) // undefined */
export const optional = <T extends z.ZodType>(of: T) => told(z.optional(of), { is: 'optional', of });

type Some<S extends z.ZodRawShape> = {
  [K in keyof S]: S[K] extends z.ZodOptional ? S[K] : z.ZodExactOptional<S[K]>;
};

/** Any of some fields. @example some({ seed: SEED }).parse({}) // {} */
export const some = <S extends Record<string, z.ZodType>>(of: S) => {
  const shape = Object.fromEntries(
    Object.entries(of).map(([name, one]) => [
      name,
      one instanceof z.ZodOptional ? one : z.exactOptional(one),
    ]),
  );
  return told(z.object(shape as Some<S>), { is: 'some', of });
};
/** A part of a document as a whole. @example aboutOf(thing('roll', rollSchema)) // { is: "thing", of: "roll" } */
export const thing = <T extends z.ZodType>(of: string, schema: T): T => told(schema, { is: 'thing', of });

const spot: z.ZodType<Spot> = z.object({
  laneId: z.string(),
  step: z.int(),
  place: z.exactOptional(z.int()),
});
export const HITS = told(z.array(spot), { is: 'hits' });
export const HIT = told(spot.clone(), { is: 'hit' });
export const LANES = ids('lane');
export const LANE = id('lane');
export const NEW_ID = told(z.string(), { is: 'new id' });
export const SEED = told(z.int().min(0), { is: 'seed' });
export const TEXT = told(z.string(), { is: 'text' });
export const FLAG = told(z.boolean(), { is: 'yes or no' });
/** A place in a list, from 0; beyond its end it is the end. */
export const PLACE = figure({ least: 0, most: 4095, whole: true });
/** A change of the name. */
export const NAME = { name: TEXT };

/** Passes of a section. */
const PASS = figure({ least: 0, most: 4096, whole: true });
/** Passes that were played, from one up to another. */
export const FROM_TO = { from: PASS, to: PASS };

/** What an edit takes, by name. */
export type Arguments = Record<string, z.ZodType>;

/** An edit: what it does, what it takes, and what comes of it. */
export interface Edit<On, Rest extends unknown[] = []> {
  does: string;
  args: z.ZodObject<Arguments>;
  run: (on: On, args: never, ...rest: Rest) => On;
}

/** What an edit is given. */
export type ArgsOf<E extends { args: z.ZodType }> = z.infer<E['args']>;

/**
 * Describes an edit, once: its type, its place in the documentation, what scripts, other tabs and journals may give it, and what
 * the tests try follow from it.
 *
 * @example
 * defineEdit<number>()({ does: 'Makes it softer', args: { by: SEED }, run: (n, a) => n - a.by }).run(7, { by: 2 }) // 5
 */
export const defineEdit =
  <On, Rest extends unknown[] = []>() =>
  <const S extends Arguments>({
    does,
    args,
    run,
  }: {
    does: string;
    args: S;
    run: (on: On, args: z.infer<z.ZodObject<S>>, ...rest: Rest) => On;
  }) => ({ does, args: z.object(args), run });

const isPlain = (value: unknown): value is object =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const held = (argument: z.ZodType, value: unknown): unknown => {
  const about = aboutOf(argument);
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
 * What is given to an edit, with every figure held to its range; all else is left as it is.
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
