import type * as Web from './row.web';

/** Rows are walked along by the keys of a browser; elsewhere they are as they stand. */
export const buttonRow: typeof Web.buttonRow = {};
export const buttonColumn: typeof Web.buttonColumn = {};
export const rowList: typeof Web.rowList = {};
