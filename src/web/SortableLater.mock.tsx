import type { ReactNode } from 'react';

interface SortableProps {
  items: { id: string; name: string; row: ReactNode }[];
  onMove: (id: string, to: number) => void;
}

/** For tests without a layout, in which nothing can be dragged: a button a row that puts it first. */
export const SortableLater = ({ items, onMove }: SortableProps) => (
  <ul>
    {items.map(({ id, name, row }) => (
      <li key={id}>
        {row}
        <button type="button" onClick={() => onMove(id, 0)}>{`Put ${name} first`}</button>
      </li>
    ))}
  </ul>
);
