import { memo, useInsertionEffect, useState, type ComponentType, type ReactNode } from 'react';

type Doing = (...given: never[]) => unknown;

/** What a part does under one name: the same function for good, which does what the newest one does. */
const createSteady = () => {
  let newest: Record<string, unknown> = {};
  const same = new Map<string, Doing>();
  const sameFor = (name: string): Doing => {
    const there = same.get(name) ?? ((...given: never[]) => (newest[name] as Doing)(...given));
    same.set(name, there);
    return there;
  };
  return {
    take: (props: object): void => {
      newest = props as Record<string, unknown>;
    },
    given: <P extends object>(props: P): P =>
      Object.fromEntries(
        Object.entries(props).map(([name, value]) => [
          name,
          typeof value === 'function' ? sameFor(name) : (value as unknown),
        ]),
      ) as P,
  };
};

/**
 * A part that is drawn anew only where something that it shows is another: what it does when it is worked is always the newest,
 * and another function for the same is no reason to draw it. For parts that call their functions when they are worked, never
 * while they are drawn.
 *
 * @example export const Chip = steady(PlainChip)
 */
export const steady = <P extends object>(Part: (props: P) => ReactNode): ((props: P) => ReactNode) => {
  const Remembered = memo(Part as ComponentType<P>) as unknown as ComponentType<P>;
  const Steady = (props: P): ReactNode => {
    const [own] = useState(createSteady);
    useInsertionEffect(() => own.take(props));
    return <Remembered {...own.given(props)} />;
  };
  return Steady;
};
