/** Reads files beside the page. */
import { expose } from 'comlink';
import { read } from './readers';

expose({ read });
