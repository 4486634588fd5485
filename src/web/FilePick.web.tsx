/** Choosing files of the machine: React Native has no counterpart for it. */
import type { ReactNode } from 'react';
import { Chip } from '../ui/Chip';
import { useFileField } from './fileField';

interface FilePickProps {
  label: string;
  accept: string;
  multiple?: boolean;
  onFile: (name: string, bytes: Uint8Array) => void;
  children: ReactNode;
}

/** A button that opens files of the machine. */
export const FilePick = ({ label, accept, multiple = false, onFile, children }: FilePickProps) => {
  const { field, choose } = useFileField({
    label,
    accept,
    multiple,
    onFiles: (files) => {
      void (async () => {
        for (const file of files) onFile(file.name, new Uint8Array(await file.arrayBuffer()));
      })();
    },
  });
  return (
    <>
      {field}
      <Chip onPress={choose}>{children}</Chip>
    </>
  );
};
