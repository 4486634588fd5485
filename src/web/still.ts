import type { ComponentType } from 'react';
import View from 'react-native-web/dist/exports/View';

/**
 * What stands still: in the place of animation, for what asks for it and never moves here, fields and charts and the
 * router. All of it would bring lists and images to the first screen.
 */
class Value {
  constructor(private value = 0) {}
  setValue(value: number): void {
    this.value = value;
  }
  interpolate(): number {
    return this.value;
  }
}

const ended = {
  start: (done?: (result: { finished: boolean }) => void) => done?.({ finished: true }),
  stop: () => undefined,
};
const end = () => ended;

export default {
  View,
  Value,
  timing: end,
  parallel: end,
  sequence: end,
  loop: end,
  createAnimatedComponent: <P>(part: ComponentType<P>) => part,
};

const way = (at: number) => at;
/** Of its ways to move none is gone. */
export const Easing = { linear: way, ease: way, cubic: way, out: () => way, in: () => way, inOut: () => way };
