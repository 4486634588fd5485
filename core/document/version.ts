/** The version of the document that this code reads and writes. */
export const VERSION = 13;
