/** The reader of beats that are kept: it brings the checks with it, which are large, and is fetched when it is needed. */
export { isNewer, readBeat } from './document/file';
export { mendBeat } from './document/mend';
export { ownKitSchema } from './document/soundSchema';
