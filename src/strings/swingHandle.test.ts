import fc from 'fast-check';
import { SWING_MARKS } from '../../core/feel/swing';
import { draggedSwing } from './SwingHandle.web';

test('on a phone a point is a small turn, on a wide string the hinge goes with the hand', () => {
  fc.assert(
    fc.property(fc.integer({ min: 30, max: 1200 }), fc.integer({ min: -40, max: 40 }), (points, moved) => {
      const turned = Math.abs(draggedSwing(62, moved, points) - 62);
      expect(turned).toBeLessThanOrEqual((Math.abs(moved) / points) * 100 + 0.5);
      // 150 points at least for all of the range, but for rounding and the marks.
      expect(turned).toBeLessThanOrEqual((Math.abs(moved) * 35) / 150 + 0.5);
      if (points > 600) expect(turned).toBeGreaterThanOrEqual((Math.abs(moved) / points) * 100 - 0.5);
    }),
    { seed: 19 },
  );
});

test.each(SWING_MARKS.map(({ name, percent }) => [name, percent] as const))(
  'it stays on %s',
  (_, percent) => {
    expect(draggedSwing(percent - 2, 2.05 * 10, 1000)).toBe(percent);
  },
);
