import { Zip, ZipPassThrough, strToU8 } from 'fflate';
import type { DragEvent } from 'react';
import type { ExportHow } from '../../../core/export/choice';
import { listOf, MIME, pathOf, type Exported, type OutFile } from '../../../core/export/exporting';
import { saveBlob, saveBytes } from '../../ui/files';
import type { BouncedFile } from './bouncing';

/** A file with its bytes, ready to be given away. */
export interface Ready {
  path: string;
  bytes: Uint8Array;
}

const bytesOf = (data: OutFile['data']): Uint8Array =>
  typeof data === 'string' ? strToU8(data) : (data ?? new Uint8Array());

/** The files of a choice; those of a bounce take the place of what was only prepared. */
export const readyFiles = ({ files }: Exported, bounced: BouncedFile[] | null): Ready[] =>
  bounced ?? files.map((file) => ({ path: pathOf(file), bytes: bytesOf(file.data) }));

const part = (bytes: Uint8Array): Uint8Array<ArrayBuffer> => bytes as Uint8Array<ArrayBuffer>;

/** A ZIP of files and their list. Nothing in it is held twice: sound does not become smaller by being packed. */
export const zipped = (out: Exported, files: Ready[]): Blob => {
  const parts: Uint8Array<ArrayBuffer>[] = [];
  const zip = new Zip((_fault, chunk) => parts.push(part(chunk)));
  for (const { path, bytes } of [...files, { path: 'list.txt', bytes: strToU8(listOf(out)) }]) {
    const entry = new ZipPassThrough(path);
    zip.add(entry);
    entry.push(bytes, true);
  }
  zip.end();
  return new Blob(parts, { type: 'application/zip' });
};

/** One file as it is, several as a ZIP. */
export const parcel = (out: Exported, how: ExportHow, files: Ready[]): { name: string; blob: Blob } =>
  files.length === 1
    ? { name: files[0]!.path, blob: new Blob([part(files[0]!.bytes)], { type: MIME[how.kind] }) }
    : { name: out.zipName, blob: zipped(out, files) };

/** Saves it as a download. @returns what it is called */
export const download = (out: Exported, how: ExportHow, files: Ready[]): string => {
  const [only] = files;
  if (files.length === 1) saveBytes(only!.bytes, only!.path, MIME[how.kind]);
  else saveBlob(zipped(out, files), out.zipName);
  return files.length === 1 ? only!.path : out.zipName;
};

/** Whether a file is there to be dragged: one that is still to be bounced is not. */
export const mayDrag = ({ data }: OutFile): boolean => data !== null;

let dragged: string | null = null;

/** Lets a file be dragged out of the page, where the browser can: `type:name:address`. */
export const dragOut = (event: DragEvent, name: string, blob: Blob): void => {
  if (dragged) URL.revokeObjectURL(dragged);
  dragged = URL.createObjectURL(blob);
  event.dataTransfer.effectAllowed = 'copy';
  event.dataTransfer.setData('DownloadURL', `${blob.type}:${name}:${dragged}`);
};

const asFiles = ({ name, blob }: { name: string; blob: Blob }): File[] => [
  new File([blob], name, { type: blob.type }),
];

/** Whether the system has a sheet to share files with. */
export const mayShare = (): boolean =>
  typeof navigator !== 'undefined' &&
  typeof navigator.canShare === 'function' &&
  navigator.canShare({ files: [new File([''], 'a.txt', { type: 'text/plain' })] });

/** Hands it to the system's share sheet. @returns false where the system does not take such files; closing it is no fault */
export const share = async (what: { name: string; blob: Blob }): Promise<boolean> => {
  const files = asFiles(what);
  if (!navigator.canShare({ files })) return false;
  try {
    await navigator.share({ files, title: what.name });
  } catch (fault) {
    return fault instanceof DOMException && fault.name === 'AbortError';
  }
  return true;
};
