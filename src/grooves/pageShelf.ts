import { store } from '../keeping/session';
import { createShelf } from './shelf';
import { browserStorage } from '../keeping/storage';

/** The one shelf of the page. */
export const shelf = createShelf(store, browserStorage(), '/api/grooves');
