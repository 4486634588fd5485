import { z } from 'zod';
import type { Range } from './ranges';

/** A figure within its bounds. @example figure(RANGES.velocity).safeParse(128).success // false */
export const figure = ({ least, most, whole }: Range) => (whole ? z.int() : z.number()).min(least).max(most);
