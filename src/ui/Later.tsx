import { useLayoutEffect, useState, type ComponentType } from 'react';
import { Chip } from './Chip';

type Fetch = () => Promise<ComponentType>;

const fetched = new Map<Fetch, ComponentType>();

/**
 * A screen that is fetched when it is first shown; from then on it is there at once. Where it cannot be fetched that
 * is said, and the rest of the app goes on.
 *
 * @param props.of the same function each time
 */
export const Later = ({ of }: { of: Fetch }) => {
  const [screen, setScreen] = useState<ComponentType | null>(() => fetched.get(of) ?? null);
  const [tries, setTries] = useState(0);
  const [failed, setFailed] = useState(false);
  useLayoutEffect(() => {
    if (fetched.has(of)) return;
    let wanted = true;
    of().then(
      (found) => {
        fetched.set(of, found);
        if (wanted) setScreen(() => found);
      },
      () => wanted && setFailed(true),
    );
    return () => {
      wanted = false;
    };
  }, [of, tries]);
  const Screen = screen;
  if (Screen) return <Screen />;
  if (!failed)
    return (
      <p className="later quiet" role="status">
        One moment…
      </p>
    );
  const again = () => {
    setFailed(false);
    setTries(tries + 1);
  };
  return (
    <div className="later-failed" role="alert">
      <p>This screen could not be fetched. Your beats are kept, and what plays goes on.</p>
      <Chip onPress={again}>Try again</Chip>
    </div>
  );
};
