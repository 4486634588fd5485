import { z } from 'zod';

/**
 * The id of a lane, a pattern or the like: any short text but the names that every object has by itself, such as
 * `constructor`. What is looked up by an id must find nothing but what was put there.
 */
export const id = z
  .string()
  .min(1)
  .max(64)
  .refine((value) => !(value in Object.prototype), 'is a name that no id may have');
