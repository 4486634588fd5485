/** What reads maps and keepers: fetched when the first file is there to be read. */
export const mapFormats = () => import('../../../core/mapFormats');
