import { useRef, type ReactNode } from 'react';
import { Chip } from './Chip';

interface FilePickProps {
  label: string;
  accept: string;
  multiple?: boolean;
  onFile: (name: string, bytes: Uint8Array) => void;
  children: ReactNode;
}

/** A button that opens files of the machine. */
export const FilePick = ({ label, accept, multiple = false, onFile, children }: FilePickProps) => {
  const field = useRef<HTMLInputElement>(null);
  const take = async (files: FileList | null) => {
    for (const file of files ?? []) onFile(file.name, new Uint8Array(await file.arrayBuffer()));
    if (field.current) field.current.value = '';
  };
  return (
    <>
      <input
        ref={field}
        type="file"
        hidden
        aria-label={label}
        accept={accept}
        multiple={multiple}
        onChange={(event) => void take(event.target.files)}
      />
      <Chip onPress={() => field.current?.click()}>{children}</Chip>
    </>
  );
};
