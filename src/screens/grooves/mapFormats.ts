/** What reads lists of drums from elsewhere, with its parsers: fetched when the first one is there to be read. */
export const mapFormats = () => import('../../../core/midi/mapFiles');
