/** Reads files beside the page: a shell around `importer.ts`. */
import { expose } from 'comlink';
import { sayAlive } from './alive';
import { browserStorage } from '../keeping/storage';
import { createImporter } from './importer';

sayAlive();
expose(createImporter(browserStorage()));
