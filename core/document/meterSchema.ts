import { z } from 'zod';

export const meterSchema = z.strictObject({
  beats: z.int().min(1).max(21),
  unit: z.union([z.literal(2), z.literal(4), z.literal(8), z.literal(16)]),
});
