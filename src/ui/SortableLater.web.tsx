import { lazy, Suspense, type ComponentProps } from 'react';
import type { Sortable as Now } from './Sortable';

const Sortable = lazy(async () => ({ default: (await import('./Sortable')).Sortable }));

/** A sortable list whose dragging is fetched when a list is first shown; until then its rows stand there. */
export const SortableLater = (props: ComponentProps<typeof Now>) => (
  <Suspense
    fallback={
      <ul aria-label={props.label} className="sortable">
        {props.items.map(({ id, row }) => (
          <li key={id}>{row}</li>
        ))}
      </ul>
    }
  >
    <Sortable {...props} />
  </Suspense>
);
