import { Group, Chips } from '../../../../ui/Layout';
import { nanoid } from '@reduxjs/toolkit';
import type { Lane } from '../../../../../core/document/schema';
import { selectBeat, useApp } from '../../../../store/store';
import { Chip } from '../../../../ui/Chip';
import { useKept } from '../../../../ui/useKept';
import { edit } from '../edit';
import { newSeed } from './settings';
import { words } from '../../../../words/drawer';

const SHARES = [
  { share: 0.1, name: words.varyATenth },
  { share: 0.25, name: words.varyAQuarter },
  { share: 0.5, name: words.varyHalf },
];

/** Rolling and varying, with every outcome kept. */
export const ChanceMaker = ({ lane }: { lane: Lane | undefined }) => {
  const lanes = useApp((state) => selectBeat(state)!.lanes);
  const [all, setAll] = useKept('chance for all lanes', false);
  const [keep, setKeep] = useKept('hold', { count: false, places: false, velocities: false });
  const laneIds = all || !lane ? lanes.map(({ id }) => id) : [lane.id];
  const holds = [
    { key: 'count', name: words.holdHowMany },
    { key: 'places', name: words.holdWhere },
    { key: 'velocities', name: words.holdVelocities },
  ] as const;
  return (
    <>
      <Group title={all || !lane ? words.chanceForAllLanes2 : words.chanceForLane(lane.name)}>
        <Chips>
          {lane ? (
            <Chip pressed={all} onPress={() => setAll(!all)}>
              {words.allLanes}
            </Chip>
          ) : null}
          <Chip onPress={() => edit('randomize', { laneIds, seed: newSeed(), id: nanoid(), keep })}>
            {words.randomize}
          </Chip>
          {SHARES.map(({ share, name }) => (
            <Chip key={share} onPress={() => edit('vary', { laneIds, seed: newSeed(), id: nanoid(), share })}>
              {name}
            </Chip>
          ))}
        </Chips>
        <Chips>
          {holds.map(({ key, name }) => (
            <Chip key={key} pressed={keep[key]} onPress={() => setKeep({ ...keep, [key]: !keep[key] })}>
              {name}
            </Chip>
          ))}
        </Chips>
      </Group>
    </>
  );
};
