/** Lists long rings beside the page. */
import { expose } from 'comlink';
import { sayAlive } from './alive';
import { arrangements } from '../../core/make/ring';

sayAlive();
expose({ arrangements });
