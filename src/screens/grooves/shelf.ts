import { useEffect, useSyncExternalStore } from 'react';
import { shelf } from '../../grooves/pageShelf';
import type { Shelf } from '../../grooves/shelf';
import { sinceThen } from '../../ui/sinceThen';

export { shelf };

const listen = sinceThen(shelf.listen);

/** What the shelf holds; read when it is first looked at. */
export const useShelf = (): Shelf => {
  useEffect(() => void shelf.load(), []);
  return useSyncExternalStore(listen, shelf.now, shelf.now);
};
