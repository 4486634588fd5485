import { Group, Chips } from '../../ui/Layout';
import { View } from 'react-native';
import { styles } from './styles';
import { KIT_IDS } from '../../../core/beat/choices';
import { KITS } from '../../../core/sound/kits';
import { TEMPO, held } from '../../../core/units';
import { groovesChanged, type GroovesState } from '../../state/grooves';
import { selectBeat, useApp, useDo } from '../../state/store';
import { Chip } from '../../ui/Chip';
import { Choice } from '../../ui/Choice';
import { NumberField } from '../../ui/NumberField';

const AFTER: { value: GroovesState['after']; name: string }[] = [
  { value: 'repeat', name: 'Repeat it' },
  { value: 'stop', name: 'Stop' },
  { value: 'next', name: 'Go on to the next' },
];

const Silenced = () => {
  const beat = useApp(selectBeat);
  const silenced = useApp((state) => state.grooves.silenced);
  const act = useDo();
  if (!beat) return null;
  const turn = (name: string) =>
    act(
      groovesChanged({
        silenced: silenced.includes(name) ? silenced.filter((one) => one !== name) : [...silenced, name],
      }),
    );
  const all = beat.lanes.every(({ name }) => silenced.includes(name));
  return (
    <Group title="Silence of the beat meanwhile" style={styles.silence}>
      <Chip
        pressed={all}
        onPress={() => act(groovesChanged({ silenced: all ? [] : beat.lanes.map(({ name }) => name) }))}
      >
        All of it
      </Chip>
      {beat.lanes.map(({ id, name }) => (
        <Chip key={id} label={`Silence ${name}`} pressed={silenced.includes(name)} onPress={() => turn(name)}>
          {name}
        </Chip>
      ))}
    </Group>
  );
};

/** How grooves are heard: when, at which tempo, through which kit, alone or along with the beat. */
export const HearOptions = () => {
  const { atOnce, after, tempo, hand, inTime, kit } = useApp((state) => state.grooves);
  const act = useDo();
  const set = (change: Partial<GroovesState>) => act(groovesChanged(change));
  return (
    <View role="region" style={styles.hearOptions} aria-label="How grooves are heard">
      <Chips>
        <Chip label="Hear at once" pressed={atOnce} onPress={() => set({ atOnce: !atOnce })}>
          Hear at once
        </Chip>
        <Chip label="In time with the beat" pressed={inTime} onPress={() => set({ inTime: !inTime })}>
          In time with the beat
        </Chip>
      </Chips>
      {inTime ? (
        <Silenced />
      ) : (
        <View style={styles.choices}>
          <Choice
            label="When it ends"
            short="When it ends"
            value={after}
            options={AFTER}
            onChange={(value) => set({ after: value })}
          />
          <Choice
            label="Tempo of grooves"
            short="Tempo"
            value={tempo}
            options={[
              { value: 'groove', name: 'Its own' },
              { value: 'beat', name: 'The beat’s' },
              { value: 'hand', name: 'By hand' },
            ]}
            onChange={(value) => set({ tempo: value })}
          />
          {tempo === 'hand' ? (
            <NumberField
              label="Tempo by hand"
              value={hand}
              {...TEMPO}
              under="BPM"
              width={72}
              onChange={(value) => set({ hand: held(Math.round(value), TEMPO.least, TEMPO.most) })}
            />
          ) : null}
          <Choice
            label="Heard through"
            short="Heard through"
            value={kit}
            options={[
              { value: 'beat', name: 'The beat’s kit' },
              ...KIT_IDS.map((id) => ({ value: id, name: KITS[id].name })),
            ]}
            onChange={(value) => set({ kit: value as GroovesState['kit'] })}
          />
        </View>
      )}
    </View>
  );
};
