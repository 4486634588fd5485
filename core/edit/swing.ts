import type { PlainFeel, Swing } from '../document/feelSchema';

/** A change of a swing; `withTempo: null` lets it go by its percent again, and so does a percent. */
export type SwingChange = Partial<Omit<Swing, 'withTempo'>> & { withTempo?: number | null | undefined };

/**
 * A swing after a change of it.
 *
 * @example changedSwing({ percent: 50, grid: '1/16' }, { percent: 58 }) // { percent: 58, grid: '1/16' }
 */
export const changedSwing = ({ withTempo, ...now }: Swing, change: SwingChange): Swing => {
  const { withTempo: asked, ...rest } = change;
  const amount = asked === undefined ? (rest.percent === undefined ? withTempo : undefined) : asked;
  return { ...now, ...rest, ...(amount != null && { withTempo: amount }) };
};

/**
 * A base that is set while its stage is passed by would not be heard: the stage takes part again.
 *
 * @example heardAgain({ ...plainOf(beat.feel), off: ['base'] }).off // []
 */
export const heardAgain = (feel: PlainFeel): PlainFeel =>
  feel.off.includes('base') ? { ...feel, off: feel.off.filter((one) => one !== 'base') } : feel;

/**
 * A feel whose swing is changed; what is set is heard: swing becomes the base.
 *
 * @example withSwing(plainOf(beat.feel), { percent: 58 }).base // "swing"
 */
export const withSwing = (feel: PlainFeel, change: SwingChange): PlainFeel => ({
  ...heardAgain(feel),
  base: 'swing',
  swing: changedSwing(feel.swing, change),
});
