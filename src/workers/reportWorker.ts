/** Measures feels beside the page. */
import { expose } from 'comlink';
import { sayAlive } from './alive';
import { playedOf, reportOf } from './reportOf';

sayAlive();
expose({ playedOf, reportOf });
