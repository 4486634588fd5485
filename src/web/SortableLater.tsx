import { Item, Items } from '../ui/Layout';
import type * as Web from './SortableLater.web';

/** The rows as they stand: their own buttons put them elsewhere. */
export const SortableLater: typeof Web.SortableLater = ({ label, items }) => (
  <Items label={label}>
    {items.map(({ id, row }) => (
      <Item key={id}>{row}</Item>
    ))}
  </Items>
);
