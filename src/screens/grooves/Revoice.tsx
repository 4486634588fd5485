import { Para } from '../../ui/Words';
import { View } from 'react-native';
import { styles } from './styles';
import { INSTRUMENTS, type InstrumentId } from '../../../core/document/instruments';
import type { Groove } from '../../../core/groove/groove';
import { articulationsOf, LEVEL_RANGE } from '../../../core/groove/revoice';
import { PLAIN_VOICING } from '../../../core/groove/voicing';
import { keepTimeOn, POSTS } from '../../../core/groove/timekeeper';
import { Chip } from '../../ui/Chip';
import { Choice } from '../../ui/Choice';
import { PERCENT } from '../../ui/figures';
import { Range } from '../../ui/Range';
import { setVoicing, useHeard } from './audition';
import { words } from '../../words/grooves';

const named = (id: InstrumentId) => ({ value: id, name: INSTRUMENTS[id].name });

/** Who keeps time. */
const Timekeeper = ({ groove }: { groove: Groove }) => {
  const { voicing } = useHeard();
  const { timekeeper } = groove;
  if (!timekeeper) return <Para quiet>{words.nothingKeepsTimeInThis}</Para>;
  const own = keepTimeOn(groove, timekeeper).timekeeper!;
  const posts = [...new Set([own, ...POSTS.map(({ plain }) => plain)])];
  return (
    <Choice
      label={words.timeIsKeptOn}
      short={words.timeIsKeptOn}
      value={voicing.timekeeper ?? own}
      options={posts.map(named)}
      onChange={(value) => setVoicing({ timekeeper: value === own ? null : value })}
    />
  );
};

interface VoiceProps {
  id: InstrumentId;
}

/** With what a drum is played, and how hard. */
const Voice = ({ id }: VoiceProps) => {
  const { voicing } = useHeard();
  const { name } = INSTRUMENTS[id];
  const level = voicing.levels[id] ?? 1;
  return (
    <View style={styles.voice}>
      <Choice
        label={words.nameIsPlayedWith(name)}
        short={name}
        value={voicing.voices[id] ?? id}
        options={articulationsOf(id).map(named)}
        onChange={(value) => setVoicing({ voices: { ...voicing.voices, [id]: value } })}
      />
      <Range
        label={words.velocitiesOfName(name)}
        short={words.velocity}
        value={level}
        {...LEVEL_RANGE}
        step={0.05}
        written={PERCENT}
        shown={`${Math.round(level * 100)} %`}
        onChange={(value) => setVoicing({ levels: { ...voicing.levels, [id]: value } })}
      />
    </View>
  );
};

/** A groove with other voices. The groove itself stays as it is; what is brought in is what is heard. */
export const Revoice = ({ groove }: { groove: Groove }) => {
  const { voicing } = useHeard();
  const moved = voicing.timekeeper ? keepTimeOn(groove, voicing.timekeeper) : groove;
  const voices = [
    ...new Set(moved.lanes.filter(({ unknown }) => !unknown).map(({ instrument }) => instrument)),
  ];
  return (
    <>
      <Para quiet>{words.youHearItWhileIt}</Para>
      <Timekeeper groove={groove} />
      {voices.map((id) => (
        <Voice key={id} id={id} />
      ))}
      <Chip onPress={() => setVoicing(PLAIN_VOICING)}>{words.asItWas}</Chip>
    </>
  );
};
