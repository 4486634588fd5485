/** Reads files away from the page: a shell around `importer.ts`. */
import { browserStorage } from '../state/storage';
import { createImporter, type ToImport } from './importer';

const importer = createImporter(browserStorage(), (message) => postMessage(message));

onmessage = ({ data }: MessageEvent<ToImport>) => importer(data);
