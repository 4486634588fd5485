/** Measures feels beside the page. */
import { expose } from 'comlink';
import { playedOf, reportOf } from './reportOf';

expose({ playedOf, reportOf });
