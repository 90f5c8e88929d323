import { type DragEvent, useState } from "react";

/** useFileDrop is what makes an element take files that are dropped on it: its handlers, and how it shows that it would. */
export function useFileDrop(onFiles: (files: File[]) => void) {
  const [over, setOver] = useState(false);
  const drop = {
    onDragOver: (e: DragEvent) => {
      e.preventDefault();
      setOver(true);
    },
    onDragLeave: () => setOver(false),
    onDrop: (e: DragEvent) => {
      e.preventDefault();
      setOver(false);
      onFiles([...e.dataTransfer.files]);
    },
  };
  return { drop, dropping: over ? "wash outline-2 outline-accent outline-dashed -outline-offset-8" : "" };
}
