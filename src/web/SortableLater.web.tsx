import type { ComponentProps } from 'react';
import { Later } from '../ui/Later';
import type { Sortable as Now } from './Sortable';
import { words } from '../words/web';

const sortable = async () => (await import('./Sortable')).Sortable;

/** A sortable list whose dragging is fetched when a list is first shown; until then its rows stand there. */
export const SortableLater = (props: ComponentProps<typeof Now>) => (
  <Later
    of={sortable}
    what={words.whatDragsTheRowsOf}
    waiting={
      <ul aria-label={props.label} className="sortable">
        {props.items.map(({ id, row }) => (
          <li key={id}>{row}</li>
        ))}
      </ul>
    }
    given={props}
  />
);
