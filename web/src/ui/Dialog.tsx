import { X } from "lucide-react";
import { type ReactNode, useEffect, useId, useRef } from "react";

type Props = { title: string; wide?: boolean; onClose: () => void; children: ReactNode };

/** Dialog is over the screen until it is answered; Escape closes it. */
export function Dialog({ title, wide, onClose, children }: Props) {
  const ref = useRef<HTMLDialogElement>(null);
  const id = useId();
  useEffect(() => {
    const d = ref.current;
    d?.showModal();
    return () => d?.close();
  }, []);
  return (
    <dialog
      ref={ref}
      aria-labelledby={id}
      className={`sheet m-auto max-h-[calc(100dvh-4rem)] w-11/12 overscroll-contain rounded bg-base-100 p-5 text-base-content backdrop:bg-black/40 ${wide ? "max-w-3xl" : "max-w-xl"}`}
      onClose={onClose}
      onCancel={(e) => {
        e.preventDefault();
        onClose();
      }}
    >
      <div className="mb-3 flex items-center gap-3">
        <h2 id={id} className="flex-1 font-semibold text-xl">
          {title}
        </h2>
        <button type="button" className="btn btn-ghost btn-square" aria-label="Close" data-close onClick={onClose}>
          <X className="size-5" aria-hidden="true" />
        </button>
      </div>
      {children}
    </dialog>
  );
}
