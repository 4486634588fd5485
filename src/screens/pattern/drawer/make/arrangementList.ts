import { useEffect, useMemo, useState } from 'react';
import { arrangements } from '../../../../../core/make/ring';
import { listAside } from '../../../../workers/listAside';

/** Rings with up to so many slots are listed at once; longer ones beside the page. */
const AT_ONCE = 16;

/** All arrangements of a ring, from even to clustered; null while they are being listed. */
export const useArrangements = (slots: number, strikes: number): Uint32Array | null => {
  const [listed, setListed] = useState<{ key: string; list: Uint32Array } | null>(null);
  const key = `${slots} ${strikes}`;
  const short = useMemo(() => (slots <= AT_ONCE ? arrangements(slots, strikes) : null), [slots, strikes]);
  useEffect(() => {
    let wanted = true;
    if (slots <= AT_ONCE) return;
    void listAside(slots, strikes).then((list) => {
      if (wanted && list) setListed({ key: `${slots} ${strikes}`, list });
    });
    return () => {
      wanted = false;
    };
  }, [slots, strikes]);
  return short ?? (listed?.key === key ? listed.list : null);
};
