import { Group, Chips } from '../../ui/Layout';
import { View } from 'react-native';
import { styles } from './styles';
import { KIT_LIST } from '../../../core/synthesis/kitList';
import { TEMPO, clamp } from '../../../core/units';
import { groovesChanged, type GroovesState } from '../../store/grooves';
import { selectBeat, useApp, useDo } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { Choice } from '../../ui/Choice';
import { NumberField } from '../../ui/NumberField';
import { words } from '../../words/grooves';

const AFTER: { value: GroovesState['after']; name: string }[] = [
  { value: 'repeat', name: words.repeatIt },
  { value: 'stop', name: words.stop },
  { value: 'next', name: words.goOnToTheNext },
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
    <Group title={words.silenceOfTheBeatMeanwhile} style={styles.silence}>
      <Chip
        pressed={all}
        onPress={() => act(groovesChanged({ silenced: all ? [] : beat.lanes.map(({ name }) => name) }))}
      >
        {words.allOfIt}
      </Chip>
      {beat.lanes.map(({ id, name }) => (
        <Chip
          key={id}
          label={words.silenceName(name)}
          pressed={silenced.includes(name)}
          onPress={() => turn(name)}
        >
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
    <View role="region" style={styles.hearOptions} aria-label={words.howGroovesAreHeard}>
      <Chips>
        <Chip label={words.hearAtOnce} pressed={atOnce} onPress={() => set({ atOnce: !atOnce })}>
          {words.hearAtOnce}
        </Chip>
        <Chip label={words.inTimeWithTheBeat} pressed={inTime} onPress={() => set({ inTime: !inTime })}>
          {words.inTimeWithTheBeat}
        </Chip>
      </Chips>
      {inTime ? (
        <Silenced />
      ) : (
        <View style={styles.choices}>
          <Choice
            label={words.whenItEnds}
            short={words.whenItEnds}
            value={after}
            options={AFTER}
            onChange={(value) => set({ after: value })}
          />
          <Choice
            label={words.tempoOfGrooves}
            short={words.tempo}
            value={tempo}
            options={[
              { value: 'groove', name: words.itsOwn },
              { value: 'beat', name: words.theBeats },
              { value: 'hand', name: words.byHand },
            ]}
            onChange={(value) => set({ tempo: value })}
          />
          {tempo === 'hand' ? (
            <NumberField
              label={words.tempoByHand}
              value={hand}
              {...TEMPO}
              under={words.bpm}
              width={72}
              onChange={(value) => set({ hand: clamp(Math.round(value), TEMPO.least, TEMPO.most) })}
            />
          ) : null}
          <Choice
            label={words.heardThrough}
            short={words.heardThrough}
            value={kit}
            options={[
              { value: 'beat', name: words.theBeatsKit },
              ...KIT_LIST.map(({ id, name }) => ({ value: id, name })),
            ]}
            onChange={(value) => set({ kit: value as GroovesState['kit'] })}
          />
        </View>
      )}
    </View>
  );
};
