import type { Ref } from 'react';

interface FileInputProps {
  readonly ref: Ref<HTMLInputElement>;
  readonly label: string;
  readonly accept: string;
  readonly onFile: (file: File) => void;
}

/** Asks for one file, opened by a button or menu elsewhere; the same file may be taken twice in a row. */
export function FileInput({ ref, label, accept, onFile }: FileInputProps) {
  return (
    <input
      ref={ref}
      type="file"
      accept={accept}
      className="hidden"
      aria-label={label}
      onChange={(event) => {
        const file = event.target.files?.[0];
        event.target.value = '';
        if (file) onFile(file);
      }}
    />
  );
}
