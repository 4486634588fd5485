import { Figure } from '../../../ui/Figure';
import { bounds, RANGES } from '../../../../core/document/ranges';
import { Chips } from '../../../ui/Layout';
import { Words, Para } from '../../../ui/Words';
import { View } from 'react-native';
import { styles } from '../styles';
import type { Feel } from '../../../../core/document/feelSchema';
import type { Lane } from '../../../../core/document/schema';
import { Chip } from '../../../ui/Chip';
import { Slider } from '../../../ui/Slider';
import { editShownFeel } from '../edit';
import { percent, PERCENT } from '../../../ui/figures';
import { words } from '../../../words/feel';

interface Setting {
  key: 'contrast' | 'level';
  name: string;
}

const SETTINGS: Setting[] = [
  { key: 'contrast', name: words.contrast },
  { key: 'level', name: words.level },
];

const Row = ({ lane, feel }: { lane: Lane; feel: Feel }) => (
  <View style={styles.pairRow}>
    <Words small style={styles.name}>
      {lane.name}
    </Words>
    {SETTINGS.map(({ key, name }) => {
      const value = feel.lanes[lane.id]?.[key] ?? 1;
      return (
        <View key={key} style={[styles.half, styles.withFigure]}>
          <View>
            <Slider
              label={`${lane.name} ${name}`}
              value={value}
              {...bounds(RANGES.level)}
              step={0.02}
              written={PERCENT}
              shown={percent(value)}
              onChange={(next, gesture) =>
                editShownFeel(
                  {
                    edit: 'setLanes',
                    args: { laneIds: [lane.id], change: { [key]: next === 1 ? undefined : next } },
                  },
                  gesture,
                )
              }
            />
          </View>
          <Words small quiet figure unsaid style={styles.pairFigure}>
            {percent(value)}
          </Words>
        </View>
      );
    })}
  </View>
);

/** Velocities stronger or weaker about their mean, lane by lane, and the whole kit up or down. */
export const DynamicsStage = ({ feel, lanes }: { feel: Feel; lanes: Lane[] }) => (
  <>
    <Figure
      of="level"
      label={words.levelOfTheKit}
      short={words.wholeKit}
      value={feel.level}
      onChange={(level, gesture) => editShownFeel({ edit: 'setLevel', args: { level } }, gesture)}
    />
    <Figure
      of="level"
      label={words.contrastOfTheKit}
      short={words.contrast2}
      value={feel.contrast ?? 1}
      onChange={(contrast, gesture) => editShownFeel({ edit: 'setContrast', args: { contrast } }, gesture)}
    />
    <View style={[styles.pairRow, styles.heads]} aria-hidden>
      <View style={styles.name} />
      <Words small quiet style={styles.half}>
        {words.contrast2}
      </Words>
      <Words small quiet style={styles.half}>
        {words.level2}
      </Words>
    </View>
    {lanes.map((lane) => (
      <Row key={lane.id} lane={lane} feel={feel} />
    ))}
    <Para quiet>{words.contrastPullsALanesVelocities}</Para>
    <Chips>
      <Chip
        onPress={() =>
          editShownFeel({
            edit: 'setLanes',
            args: {
              laneIds: lanes.map(({ id }) => id),
              change: { contrast: undefined, level: undefined },
            },
          })
        }
      >
        {words.allAsTheyAre}
      </Chip>
    </Chips>
  </>
);
