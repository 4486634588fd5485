import { Item, Items } from '../../ui/Layout';
import { Sheet } from '../../ui/Sheet';
import { Words } from '../../ui/Words';
import { KEYS } from './keys';
import { styles } from './styles';

export const KeysSheet = ({ onClose }: { onClose: () => void }) => (
  <Sheet title="Keys" open onClose={onClose}>
    <Items label="Keys">
      {KEYS.map(({ keys, does }) => (
        <Item key={keys} style={styles.keys}>
          <Words figure style={styles.keyNames}>
            {keys}
          </Words>
          <Words style={styles.keyDoes}>{does}</Words>
        </Item>
      ))}
    </Items>
  </Sheet>
);
