import { Item, Items } from '../../ui/Layout';
import { Sheet } from '../../ui/Sheet';
import { Words } from '../../ui/Words';
import { KEYS } from './keyList';
import { styles } from './styles';
import { words } from '../../words/frame';

export const KeysSheet = ({ onClose }: { onClose: () => void }) => (
  <Sheet title={words.keys} open onClose={onClose}>
    <Items label={words.keys}>
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
