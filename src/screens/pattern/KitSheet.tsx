import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { DRUM_IDS, instrument, type InstrumentId } from '../../../core/document/instruments';
import type { KitId } from '../../../core/document/schema';
import { KIT_LIST, kitToldOf } from '../../../core/synthesis/kitList';
import { hearLane } from '../../audio/player';
import { newLane } from '../../../core/document/defaults';
import { kitSet } from '../../store/doc';
import { selectBeat, useApp, useDo } from '../../store/store';
import { DrumPicture } from '../../strings/DrumPicture';
import { Chip } from '../../ui/Chip';
import { Chips, Group } from '../../ui/Layout';
import { hertzText } from '../../ui/figures';
import { Press } from '../../ui/Press';
import { Sheet } from '../../ui/Sheet';
import { colour, CORNER, TARGET } from '../../ui/tokens';
import { Para, Words } from '../../ui/Words';
import { useKept } from '../../ui/useKept';
import { words } from '../../words/kits';
import { OwnKitPart } from './OwnKit';
import { askDrum } from '../../workers/askDrum';
import type { DrumDrawn as Drum } from '../../workers/drumPicture';

const HARD = 112;
const PICTURE = { width: 144, height: 40 };

const styles = StyleSheet.create({
  kit: {
    minHeight: TARGET,
    paddingVertical: 6,
    paddingHorizontal: 12,
    borderRadius: CORNER,
    borderWidth: 1,
    borderColor: 'transparent',
  },
  chosen: { borderColor: colour.woad },
  drum: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: 12,
    minHeight: TARGET,
    paddingVertical: 6,
  },
  told: { flex: 1, minWidth: 0 },
});

const toldOf = (drum: Drum): string =>
  [
    drum.soundsAs === drum.instrument ? null : words.asAnother(instrument(drum.soundsAs).name),
    words.ring(drum.ring.toFixed(2)),
    words.bright(hertzText(drum.centroid)),
    drum.strikes > 1 ? words.strikes(drum.strikes) : null,
  ]
    .filter(Boolean)
    .join(', ');

/** One drum after the other, as they are measured. Null where one could not be. */
const useDrums = (
  kit: KitId,
  ids: readonly InstrumentId[],
  tries: number,
): Map<InstrumentId, Drum | null> => {
  const [drums, setDrums] = useState<Map<InstrumentId, Drum | null>>(new Map());
  const asked = ids.join();
  useEffect(() => {
    let wanted = true;
    const all = async () => {
      const found = new Map<InstrumentId, Drum | null>();
      for (const id of asked.split(',') as InstrumentId[]) {
        const drum = await askDrum(kit, id);
        if (!wanted) return;
        found.set(id, drum);
        setDrums(new Map(found));
      }
    };
    void all();
    return () => {
      wanted = false;
    };
  }, [kit, asked, tries]);
  return drums;
};

const OneDrum = ({ kit, id, drum }: { kit: KitId; id: InstrumentId; drum: Drum | null | undefined }) => (
  <Press
    style={styles.drum}
    label={words.hear(instrument(id).name)}
    onPress={() => void hearLane({ kit }, newLane('drum', id), HARD)}
  >
    <View style={styles.told}>
      <Words>{instrument(id).name}</Words>
      {drum ? (
        <Words small quiet>
          {toldOf(drum)}
        </Words>
      ) : null}
    </View>
    {drum ? <DrumPicture drum={drum} {...PICTURE} /> : <View style={PICTURE} />}
  </Press>
);

/** The kits that ship: what each is like, and how each of its drums looks and sounds. */
export const KitSheet = ({ onClose }: { onClose: () => void }) => {
  const act = useDo();
  const beat = useApp(selectBeat)!;
  const kit = kitToldOf(beat.kit);
  const [which, setWhich] = useKept<'beat' | 'all'>('kit drums', 'beat');
  const [tries, setTries] = useState(0);
  const own = [...new Set(beat.lanes.map(({ instrument: id }) => id))];
  const ids = which === 'beat' && own.length ? own : DRUM_IDS;
  const drums = useDrums(kit.id, ids, tries);
  const failed = [...drums.values()].some((drum) => drum === null);
  return (
    <Sheet title={words.aboutKits} open onClose={onClose}>
      <Group title={words.kits}>
        {KIT_LIST.map(({ id, name, about }) => (
          <Press
            key={id}
            style={[styles.kit, id === kit.id && styles.chosen]}
            more={{ 'aria-pressed': id === kit.id }}
            onPress={() => act(kitSet({ kit: id }))}
          >
            {/* One text on two lines: so the name is parted from the rest for whoever listens too. */}
            <Words>
              <Words inline bold>
                {name}
              </Words>
              {'\n'}
              <Words inline small quiet>
                {about}
              </Words>
            </Words>
          </Press>
        ))}
      </Group>
      <OwnKitPart beat={beat} />
      <Group title={words.drumsOf(kit.name)}>
        <Para quiet>{words.pictures}</Para>
        <Chips>
          <Chip pressed={which === 'beat'} onPress={() => setWhich('beat')}>
            {words.inBeat}
          </Chip>
          <Chip pressed={which === 'all'} onPress={() => setWhich('all')}>
            {words.allDrums}
          </Chip>
        </Chips>
        {which === 'all' ? <Para quiet>{words.everyDrum}</Para> : null}
        {ids.map((id) => (
          <OneDrum key={id} kit={kit.id} id={id} drum={drums.get(id)} />
        ))}
        {failed ? (
          <Chips>
            <Words>{words.notMeasured}</Words>
            <Chip onPress={() => setTries(tries + 1)}>{words.again}</Chip>
          </Chips>
        ) : null}
      </Group>
    </Sheet>
  );
};
