import type { Ref } from "react";

type Props = {
  ref: Ref<HTMLInputElement>;
  name: string;
  label: string;
  accept: string;
  onFile: (file: File) => void;
};

/** FileInput is an unseen input for a file; a button opens it by its ref. */
export function FileInput({ ref, name, label, accept, onFile }: Props) {
  return (
    <input
      ref={ref}
      type="file"
      accept={accept}
      className="sr-only"
      tabIndex={-1}
      aria-label={label}
      data-file={name}
      onChange={(e) => {
        const [file] = e.target.files ?? [];
        e.target.value = ""; // the same file may be chosen again
        if (file) onFile(file);
      }}
    />
  );
}
