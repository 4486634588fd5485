import { saveAs } from 'file-saver';

export const saveText = (text: string, name: string): void =>
  saveAs(new Blob([text], { type: 'application/json' }), name);

export const saveBlob = (blob: Blob, name: string): void => saveAs(blob, name);

export const saveBytes = (bytes: Uint8Array, name: string, type: string): void =>
  saveAs(new Blob([bytes as Uint8Array<ArrayBuffer>], { type }), name);
