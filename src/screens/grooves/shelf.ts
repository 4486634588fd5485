import { useEffect, useSyncExternalStore } from 'react';
import { store } from '../../state/session';
import { createShelf, type Shelf } from '../../state/shelf';
import { browserStorage } from '../../state/storage';
import { sinceThen } from '../../ui/sinceThen';

/** The one shelf of the page. */
export const shelf = createShelf(store, browserStorage(), '/api/grooves');

const listen = sinceThen(shelf.listen);

/** What the shelf holds; read when it is first looked at. */
export const useShelf = (): Shelf => {
  useEffect(() => void shelf.load(), []);
  return useSyncExternalStore(listen, shelf.now, shelf.now);
};
