import { Item, Items } from '../../ui/Layout';
import { Sheet } from '../../ui/Sheet';
import { Words } from '../../ui/Words';
import { KEY_LIST } from './keyList';
import { styles } from './styles';
import { words } from '../../words/frame';

export const KeysSheet = ({ onClose }: { onClose: () => void }) => (
  <Sheet title={words.keys} open onClose={onClose}>
    <Items label={words.keys}>
      {KEY_LIST.map(({ keys, does }) => (
        <Item key={does} style={styles.keys}>
          <Words figure style={styles.keyNames}>
            {keys}
          </Words>
          <Words style={styles.keyDoes}>{does}</Words>
        </Item>
      ))}
    </Items>
  </Sheet>
);
