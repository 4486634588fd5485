/** Measures drums beside the page. */
import { expose } from 'comlink';
import { drumPicture } from './drumPicture';

expose({ drumPicture });
