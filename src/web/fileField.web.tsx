/** Choosing files of the machine: React Native has no counterpart for it. */
import { useRef, type ReactNode } from 'react';

interface FileFieldAsked {
  label: string;
  accept?: string;
  multiple?: boolean;
  /** A whole folder is chosen. */
  folder?: boolean;
  onFiles: (files: File[]) => void;
}

/** A field that is not seen, and what opens it. */
export const useFileField = ({
  label,
  accept,
  multiple = false,
  folder = false,
  onFiles,
}: FileFieldAsked): { field: ReactNode; choose: () => void } => {
  const input = useRef<HTMLInputElement>(null);
  const field = (
    <input
      ref={input}
      type="file"
      hidden
      aria-label={label}
      accept={accept}
      multiple={multiple}
      onChange={(event) => {
        onFiles([...(event.target.files ?? [])]);
        event.target.value = '';
      }}
      {...(folder && { webkitdirectory: '' })}
    />
  );
  return { field, choose: () => input.current?.click() };
};
