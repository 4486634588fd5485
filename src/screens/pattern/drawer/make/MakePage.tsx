import { nanoid } from '@reduxjs/toolkit';
import type { Lane } from '../../../../../core/document/schema';
import { ringParts } from '../../../../../core/make/makers';
import { bandsParts } from '../../../../../core/make/bandParts';
import { STARTING_POINTS } from '../../../../../core/make/startingPoints';
import { selectPattern, type Store, useAppStore } from '../../../../store/store';
import { Chip } from '../../../../ui/Chip';
import { Choice } from '../../../../ui/Choice';
import { Chips } from '../../../../ui/Layout';
import { keep, useKept } from '../../../../ui/useKept';
import { Para } from '../../../../ui/Words';
import { words } from '../../../../words/make';
import { BandsMaker } from './BandsMaker';
import { BeatMaker } from './BeatMaker';
import { ChanceMaker } from './ChanceMaker';
import { ChordsMaker } from './ChordsMaker';
import { RingMaker } from './RingMaker';
import { RudimentMaker } from './RudimentMaker';
import { give, useLive, type MakerPage } from './settings';
import { Takes } from './Takes';

const MAKERS: { id: MakerPage; name: string }[] = [
  { id: 'ring', name: words.ring },
  { id: 'bands', name: words.bands },
  { id: 'chords', name: words.chords },
  { id: 'rudiment', name: words.rudiment },
  { id: 'beat', name: words.wholeBeat },
  { id: 'chance', name: words.chance },
];

/** Begins with settings that have a name. */
const startFrom = (store: Store, id: string, lane: Lane, live: boolean): void => {
  const point = STARTING_POINTS.find((one) => one.id === id);
  const pattern = selectPattern(store.getState());
  if (!point || !pattern) return;
  keep('maker', point.maker);
  keep(`make ${point.maker}`, point.settings);
  const parts =
    point.maker === 'ring'
      ? ringParts(pattern, lane.id, point.settings, 1)
      : bandsParts(pattern, [lane], point.settings, 1);
  keep(`make ${point.maker} seed`, 1);
  give(store, { maker: point.maker, parts, settings: point.settings, seed: 1 }, live, `start ${nanoid()}`);
};

const Maker = ({ maker, lane }: { maker: MakerPage; lane: Lane | undefined }) => {
  if (maker === 'chance') return <ChanceMaker lane={lane} />;
  if (maker === 'beat') return <BeatMaker />;
  if (!lane) return <Para quiet>{words.pressALane}</Para>;
  if (maker === 'bands') return <BandsMaker lane={lane} />;
  if (maker === 'rudiment') return <RudimentMaker lane={lane} />;
  return maker === 'chords' ? <ChordsMaker lane={lane} /> : <RingMaker lane={lane} />;
};

/** Rhythms that are made: by makers, whose outcomes are takes that can be opened again. */
export const MakePage = ({ lane }: { lane: Lane | undefined }) => {
  const [maker, setMaker] = useKept<MakerPage>('maker', 'ring');
  const [live, setLive] = useLive();
  const store = useAppStore();
  return (
    <>
      <Chips label={words.makers}>
        {MAKERS.map(({ id, name }) => (
          <Chip key={id} pressed={maker === id} onPress={() => setMaker(id)}>
            {name}
          </Chip>
        ))}
      </Chips>
      {maker === 'chance' ? null : (
        <>
          <Chips label={words.wayOfWorking}>
            <Chip pressed={live} onPress={() => setLive(true)}>
              {words.live}
            </Chip>
            <Chip pressed={!live} onPress={() => setLive(false)}>
              {words.tryFirst}
            </Chip>
          </Chips>
          {live ? null : <Para quiet>{words.tryAbout}</Para>}
        </>
      )}
      <Maker maker={maker} lane={lane} />
      {lane && (maker === 'ring' || maker === 'bands') ? (
        <Choice
          label={words.startingPoint}
          short={words.startFrom}
          value=""
          options={[
            { value: '', name: words.chooseOne },
            ...STARTING_POINTS.map(({ id, name }) => ({ value: id, name })),
          ]}
          onChange={(id) => startFrom(store, id, lane, live)}
        />
      ) : null}
      <Takes />
    </>
  );
};
