/** Reads files beside the page. */
import { expose } from 'comlink';
import { sayAlive } from './alive';
import { read } from './readers';

sayAlive();
expose({ read });
