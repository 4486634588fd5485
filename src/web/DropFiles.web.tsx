/** Dropping files: React Native has no counterpart for it. */
import type { ReactNode } from 'react';

interface DropFilesProps {
  onFiles: (files: File[]) => void;
  children: ReactNode;
}

/** Takes files that are dropped anywhere on what it holds. */
export const DropFiles = ({ onFiles, children }: DropFilesProps) => (
  <div
    style={{ display: 'contents' }}
    onDragOver={(event) => event.preventDefault()}
    onDrop={(event) => {
      event.preventDefault();
      onFiles([...event.dataTransfer.files]);
    }}
  >
    {children}
  </div>
);
