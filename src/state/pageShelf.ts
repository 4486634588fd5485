import { store } from './session';
import { createShelf } from './shelf';
import { browserStorage } from './storage';

/** The one shelf of the page. */
export const shelf = createShelf(store, browserStorage(), '/api/grooves');
