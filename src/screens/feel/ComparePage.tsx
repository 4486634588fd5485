import { Group, Chips } from '../../ui/Layout';
import { Hold } from '../../ui/Hold';
import { Para } from '../../ui/Words';
import type { Compared } from '../../../core/analysis/compare';
import { againstChosen, compared, selectAgainst } from '../../store/comparing';

import { useApp, useDo } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { BlindTest } from './BlindTest';
import { words } from '../../words/feel';

const against = (b: { name: string } | null, which: Compared): string =>
  which === 'b' && b ? `“${b.name}”` : words.withoutAnyFeel;

/** The pattern with its feel and without it, or with another one, equally strong. */
export const ComparePage = () => {
  const act = useDo();
  const b = useApp((state) => state.comparing.b);
  const compare = useApp((state) => state.comparing.compare);
  const blind = useApp((state) => state.comparing.blind);
  const which = useApp(selectAgainst);
  const setAgainst = (to: Compared) => act(againstChosen(to));
  const hold = (on: boolean) => act(compared(on ? which : null));
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
