/** The database of the browser in which samples are kept. */
export const SAMPLES = 'ruddik.samples';
