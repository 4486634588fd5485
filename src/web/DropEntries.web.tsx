/** Dropping files and whole folders: React Native has no counterpart for it. */
import { fromEvent, type FileWithPath } from 'file-selector';
import type { ReactNode } from 'react';

interface DropEntriesProps {
  onEntries: (files: FileWithPath[]) => void;
  children: ReactNode;
}

/** Takes files and folders that are dropped anywhere on what it holds; each file says its path. */
export const DropEntries = ({ onEntries, children }: DropEntriesProps) => (
  <div
    style={{ display: 'contents' }}
    onDragOver={(event) => event.preventDefault()}
    onDrop={(event) => {
      event.preventDefault();
      void fromEvent(event.nativeEvent).then((found) => onEntries(found as FileWithPath[]));
    }}
  >
    {children}
  </div>
);
