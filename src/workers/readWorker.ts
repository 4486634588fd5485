/** Reads files beside the page. */
import { expose } from 'comlink';
import { readers } from './readers';

expose(readers);
