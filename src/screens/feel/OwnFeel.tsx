import { useEffect, useMemo, useState } from 'react';
import { forgetPlayed, playedIn, type PlayedKept } from '../../keeping/ownFeel';
import { browserStorage } from '../../keeping/storage';
import { noticed } from '../../store/slices';
import { learnFeelSet } from '../../store/input';
import { useApp, useDo } from '../../store/store';
import { CheckBox } from '../../ui/CheckBox';
import { Chip } from '../../ui/Chip';
import { Chips, Group } from '../../ui/Layout';
import { Para } from '../../ui/Words';
import type { ReportSource } from '../../workers/reportOf';
import { words } from '../../words/players';
import { AsPlayed } from '../AsPlayed';

const storage = browserStorage();

/** A producer's own feel: what was played in over time, as far as it may be kept. */
export const OwnFeel = () => {
  const learns = useApp(({ input }) => input.learnFeel);
  const act = useDo();
  const [all, setAll] = useState<PlayedKept[] | null>(null);
  const look = () =>
    void playedIn(storage)
      .then(setAll)
      .catch(() => setAll([]));
  useEffect(look, []);
  const source = useMemo((): ReportSource | null => (all?.length ? { kind: 'played', all } : null), [all]);
  const hits = (all ?? []).reduce((sum, { notes }) => sum + notes.length, 0);
  const forget = () =>
    void forgetPlayed(storage).then(() => {
      look();
      act(noticed({ text: words.forgotten, subject: 'feel' }));
    });
  return (
    <Group title={words.myFeel}>
      <CheckBox checked={learns} onChange={(to) => act(learnFeelSet(to))}>
        {words.learn}
      </CheckBox>
      <Para quiet>{hits ? words.learnt(hits, all!.length) : words.nothingLearnt}</Para>
      {source ? <AsPlayed name={words.myFeel} source={source} /> : null}
      {hits ? (
        <Chips>
          <Chip tone="danger" onPress={forget}>
            {words.forget}
          </Chip>
        </Chips>
      ) : null}
    </Group>
  );
};
