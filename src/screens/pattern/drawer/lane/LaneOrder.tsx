import { View } from 'react-native';
import { instrument } from '../../../../../core/document/instruments';
import type { Lane } from '../../../../../core/document/schema';
import { beatEdited } from '../../../../store/doc';
import { useDo } from '../../../../store/store';
import { InstrumentIcon } from '../../../../ui/InstrumentIcon';
import { Group } from '../../../../ui/Layout';
import { Words } from '../../../../ui/Words';
import { SortableLater } from '../../../../web/SortableLater';
import { styles } from '../styles';
import { words } from '../../../../words/drawer';

/** All lanes, to be put in order by dragging. */
export const LaneOrder = ({ lanes }: { lanes: Lane[] }) => {
  const act = useDo();
  return (
    <Group title={words.orderOfTheLanes}>
      <SortableLater
        label={words.lanesInTheirOrder}
        items={lanes.map(({ id, name, instrument: of, pigment }) => ({
          id,
          name,
          row: (
            <View style={styles.laneLine}>
              <View style={{ color: `var(--${pigment ?? instrument(of).pigment})` } as object}>
                <InstrumentIcon of={of} />
              </View>
              <Words>{name}</Words>
              <Words small quiet>
                {instrument(of).name === name ? '' : instrument(of).name}
              </Words>
            </View>
          ),
        }))}
        onMove={(laneId, to) => act(beatEdited({ edit: { edit: 'moveLane', args: { laneId, to } } }))}
      />
    </Group>
  );
};
