/** Reads files beside the page: a shell around `importer.ts`. */
import { expose } from 'comlink';
import { browserStorage } from '../state/storage';
import { createImporter } from './importer';

expose(createImporter(browserStorage()));
