import { useDeferredValue } from 'react';
import { ScrollView } from 'react-native';
import { Named } from '../../../../ui/Named';
import { onArrows } from '../../../../ui/arrows';
import { Group, Chips } from '../../../../ui/Layout';
import { Press } from '../../../../ui/Press';
import { Words, Para } from '../../../../ui/Words';
import { styles } from '../styles';
import { nanoid } from '@reduxjs/toolkit';
import type { Lane, Pattern, Take } from '../../../../../core/document/schema';
import { withTake } from '../../../../../core/make/chance';
import { selectBeat, selectPattern, useApp, useAppStore } from '../../../../store/store';
import { Chip } from '../../../../ui/Chip';
import { BeadPicture } from '../../../../strings/BeadPicture';
import { NameInput } from '../../../../ui/NameInput';
import { TrialBar } from '../../TrialBar';
import { attempt, leaveTrial } from '../../../../store/trial';
import { edit } from '../edit';
import { reopen, MAKER_NAMES } from './settings';
import { words } from '../../../../words/drawer';
import { words as made } from '../../../../words/make';

/** The lane that a take is for, where it is for one. */
const ofLanes = ({ lanes: ids }: Take, lanes: Lane[]): string => {
  const own = ids?.length === 1 ? lanes.find(({ id }) => id === ids[0]) : undefined;
  return own ? `, ${own.name}` : '';
};

interface TakesProps {
  pattern: Pattern;
  takes: Take[];
}

const Strip = ({ pattern, takes }: TakesProps) => {
  const store = useAppStore();
  const lanes = useApp((state) => selectBeat(state)!.lanes);
  const trial = useApp(({ focus }) => focus.trial);
  const tried =
    trial?.edit.kind === 'pattern' && trial.edit.edit.edit === 'recall' ? trial.edit.edit.args.takeId : null;
  const at = takes.findIndex(({ id }) => id === (tried ?? pattern.take));
  const now = takes[at];
  const attemptTake = (to: number) => {
    const take = takes[to]!;
    if (take.id === pattern.take) leaveTrial(store);
    else
      attempt(store, take.name, {
        kind: 'pattern',
        edit: { edit: 'recall', args: { takeId: take.id, id: nanoid() } },
      });
  };
  return (
    <Group title={words.takesMany(takes.length)}>
      <ScrollView
        horizontal
        contentContainerStyle={styles.takes}
        {...({ role: 'listbox', 'aria-label': words.takes, 'aria-orientation': 'horizontal' } as object)}
        {...onArrows('[role=option]')}
      >
        {takes.map((take, place) => (
          <Press
            key={take.id}
            style={[styles.take, take.kept && styles.takeKept, place === at && styles.takeChosen]}
            label={words.takeHowOfLanesSeedSeed(
              take.name,
              take.how,
              ofLanes(take, lanes),
              take.seed,
              take.kept,
            )}
            more={{ role: 'option', 'aria-selected': place === at }}
            onPress={() => attemptTake(place)}
          >
            <BeadPicture pattern={withTake(pattern, take)} lanes={lanes} width={72} height={36} />
            <Words lines={1} style={[styles.takeWords, place === at && styles.takeChosenWords]}>
              {take.name}
            </Words>
          </Press>
        ))}
      </ScrollView>
      <Chips>
        <Chip disabled={at <= 0} onPress={() => attemptTake(at - 1)}>
          {words.takeBefore}
        </Chip>
        <Chip disabled={at < 0 || at >= takes.length - 1} onPress={() => attemptTake(at + 1)}>
          {words.takeAfter}
        </Chip>
        {now ? (
          <>
            <Chip
              pressed={now.kept}
              onPress={() => edit('changeTake', { takeId: now.id, change: { kept: !now.kept } })}
            >
              {now.kept ? words.kept : words.keep}
            </Chip>
            {now.made && now.made.maker in MAKER_NAMES ? (
              <Chip onPress={() => reopen(store, now)}>{made.openAgain}</Chip>
            ) : null}
            <Chip tone="danger" onPress={() => edit('dropTake', { takeId: now.id })}>
              {words.drop}
            </Chip>
          </>
        ) : null}
      </Chips>
      {tried ? <TrialBar /> : null}
      {now?.made && now.made.maker in MAKER_NAMES ? (
        <Para quiet>{made.madeBy(MAKER_NAMES[now.made.maker as keyof typeof MAKER_NAMES])}</Para>
      ) : null}
      {now ? (
        <Named name={words.name}>
          <NameInput
            key={now.id}
            label={words.nameOfTheTake}
            value={now.name}
            onName={(name) => edit('changeTake', { takeId: now.id, change: { name } })}
          />
        </Named>
      ) : null}
    </Group>
  );
};

/** Every outcome of chance and of the makers in a strip; nothing that was rolled is lost. */
export const Takes = () => {
  // While a control is turned each move makes the newest take anew: its picture may come a little later.
  const pattern = useDeferredValue(useApp(selectPattern)!);
  return pattern.takes?.length ? (
    <Strip pattern={pattern} takes={pattern.takes} />
  ) : (
    <Para quiet>{words.everyRollBecomesATake}</Para>
  );
};
