import { Sheet } from '../../ui/Sheet';
import { KEYS } from './keys';

export const KeysSheet = ({ onClose }: { onClose: () => void }) => (
  <Sheet title="Keys" open onClose={onClose}>
    <dl className="keys">
      {KEYS.map(({ keys, does }) => (
        <div key={keys}>
          <dt className="figure">{keys}</dt>
          <dd>{does}</dd>
        </div>
      ))}
    </dl>
  </Sheet>
);
