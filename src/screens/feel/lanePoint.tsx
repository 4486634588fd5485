import { View } from 'react-native';
import { INSTRUMENTS } from '../../../core/document/instruments';
import type { Lane } from '../../../core/document/schema';

/** What a lane's points look like, by what its instrument is made of, as on the strings. */
const SHAPES = ['round', 'square', 'diamond', 'bar', 'ring'] as const;
type Shape = (typeof SHAPES)[number];

export const dyeOf = (lane: Lane): string => `var(--${lane.pigment ?? INSTRUMENTS[lane.instrument].pigment})`;

/** Neighbours differ in shape as well as in colour. */
export const shapeOf = (lanes: Lane[], id: string): Shape =>
  SHAPES[
    Math.max(
      0,
      lanes.findIndex((lane) => lane.id === id),
    ) % SHAPES.length
  ]!;

/** One point. The hit before the feel is pale; after it, it is full, and larger where it is struck harder. */
export const Point = ({
  shape,
  dye,
  size,
  pale,
}: {
  shape: Shape;
  dye: string;
  size: number;
  pale: boolean;
}) => (
  <View
    testID={pale ? 'before' : 'after'}
    style={[
      {
        width: shape === 'bar' ? size * 0.5 : size,
        height: size,
        opacity: pale ? 0.45 : 1,
        backgroundColor: shape === 'ring' || pale ? 'transparent' : dye,
        borderColor: dye,
        borderWidth: shape === 'ring' || pale ? 1.5 : 0,
        borderRadius: shape === 'round' || shape === 'ring' ? size / 2 : 1,
      },
      shape === 'diamond' && { transform: [{ rotate: '45deg' }] },
    ]}
  />
);
