import { z } from 'zod';
import { figure } from './figure';
import { RANGES } from './ranges';

export const meterSchema = z.strictObject({
  beats: figure(RANGES.beats),
  unit: z.union([z.literal(2), z.literal(4), z.literal(8), z.literal(16)]),
});
