import { saveAs } from 'file-saver';
import { fileName, writeBeat } from '../../core/document/text';
import type { Beat } from '../../core/document/schema';

export const saveText = (text: string, name: string): void =>
  saveAs(new Blob([text], { type: 'application/json' }), name);

export const saveBlob = (blob: Blob, name: string): void => saveAs(blob, name);

export const saveBytes = (bytes: Uint8Array, name: string, type: string): void =>
  saveAs(new Blob([bytes as Uint8Array<ArrayBuffer>], { type }), name);

/** Saves a beat to a file named after it. */
export const saveBeatFile = (beat: Beat): void =>
  saveText(writeBeat(beat), `${fileName(beat.name)}.ruddik.json`);
