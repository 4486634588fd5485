/** Lists long rings beside the page. */
import { expose } from 'comlink';
import { arrangements } from '../../core/make/ring';

expose({ arrangements });
