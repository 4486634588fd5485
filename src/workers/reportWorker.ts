/** Measures feels beside the page. */
import { expose } from 'comlink';
import { reportOf } from './reportOf';

expose({ reportOf });
