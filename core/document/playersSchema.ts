import { z } from 'zod';
import { MOST } from './choices';
import { figure } from './figure';
import { id } from './idSchema';
import { RANGES } from './ranges';

/** More than this in one share of attention, by rounding, is still one. */
const WHOLE = 1 + 1e-6;

/** Who plays some of the lanes, and how. */
export const playerSchema = z.strictObject({
  id,
  name: z.string().trim().min(1).max(MOST.name),
  /** The lanes that it plays. */
  lanes: z.array(id).max(MOST.lanes),
  /** The error of its clock, in ms a sixteenth: 1/f noise, which adds up. */
  clock: figure(RANGES.clock),
  /** The error of its hands, in ms: white noise, which does not. */
  touch: figure(RANGES.touch),
  /** How much it goes by the click, 0 to 1. */
  click: figure(RANGES.share),
  /** How much it goes by each of the others, by their ids, 0 to 1. */
  follows: z.record(id, figure(RANGES.share)),
});

/** Players who follow one another. A lane that none of them is given plays with the first. */
export const bandSchema = z
  .strictObject({
    /** Whether the timing comes from them, and not from the spread. */
    on: z.boolean(),
    players: z.array(playerSchema).min(1).max(MOST.players),
    /** Their common drift is the tempo's: position, click and files follow it. */
    tempo: z.boolean(),
    /** Whether each pass is drawn anew while the timing comes from the other of the two: it comes back with it. */
    otherAnew: z.boolean().optional(),
  })
  .superRefine(({ players }, ctx) => {
    const known = new Set(players.map((one) => one.id));
    if (known.size < players.length)
      ctx.addIssue({ code: 'custom', path: ['players'], message: 'has two players of one id' });
    players.forEach(({ id: own, click, follows }, at) => {
      const all = Object.values(follows).reduce((sum, share) => sum + share, click);
      if (all > WHOLE)
        ctx.addIssue({
          code: 'custom',
          path: ['players', at, 'follows'],
          message:
            'goes by more than it has attention for: all that it follows, the click included, is at most 1',
        });
      for (const other of Object.keys(follows))
        if (other === own || !known.has(other))
          ctx.addIssue({
            code: 'custom',
            path: ['players', at, 'follows', other],
            message: 'is no other player of the band',
          });
    });
  });

export type Player = z.infer<typeof playerSchema>;
export type Band = z.infer<typeof bandSchema>;
