import { Group, Chips } from '../../ui/Layout';
import { Hold } from '../../ui/Hold';
import { Para } from '../../ui/Words';
import type { Compared } from '../../../core/analysis/compare';
import { selectAgainst, viewChanged } from '../../store/slices';

import { useApp, useDo } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { BlindTest } from './BlindTest';
import { words } from '../../words/feel';

const against = (b: { name: string } | null, which: Compared): string =>
  which === 'b' && b ? `“${b.name}”` : words.withoutAnyFeel;

/** The pattern with its feel and without it, or with another one, equally strong. */
export const ComparePage = () => {
  const act = useDo();
  const b = useApp((state) => state.view.b);
  const compare = useApp((state) => state.view.compare);
  const blind = useApp((state) => state.view.blind);
  const which = useApp(selectAgainst);
  const setAgainst = (to: Compared) => act(viewChanged({ against: to }));
  const hold = (on: boolean) => act(viewChanged({ compare: on ? which : null }));
  return (
    <>
      {/* While one listens blindly, nothing else may change or show what is heard. */}
      {blind ? null : (
        <Group title={words.compareWith}>
          <Chips>
            <Chip pressed={which === 'bare'} onPress={() => setAgainst('bare')}>
              {words.withoutFeel}
            </Chip>
            <Chip pressed={which === 'b'} disabled={!b} onPress={() => setAgainst('b')}>
              {b ? `B, “${b.name}”` : words.bNoneChosen}
            </Chip>
          </Chips>
          <Hold held={compare !== null} onHold={hold}>
            {words.holdToHearIt(which === 'b', against(b, which))}
          </Hold>
          <Para quiet>{words.bothAreMadeEquallyLoud}</Para>
        </Group>
      )}
      <BlindTest which={which} against={against(b, which)} />
    </>
  );
};
