import { ArrowLeft, ArrowRight, Printer, X } from "lucide-react";
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import { createPortal, flushSync } from "react-dom";
import { Ringing } from "../clocks/Ringing";
import { Swatch } from "../colour/Swatch";
import { store, stored } from "../ui/typed";
import { type CardProps, layLeaves, mixLeaves } from "./leaves";
import { useAwake } from "./useAwake";

type Props = CardProps & { which: "mix" | "lay"; onOther?: () => void; onClose: () => void };

/**
 * CardScreen is a card over the whole screen, one thing at a time, in large type. Nothing is typed; the screen stays on.
 */
export function CardScreen(p: Props) {
  const { card, which, onOther, onClose } = p;
  const leaves = which === "mix" ? mixLeaves(p) : layLeaves(p);
  const kept = `rutile.card.${p.about.piece_id}.${p.about.zone_id}.${card.id}.${which}`;
  const [n, setN] = useState(() => {
    const was = Number(stored(kept));
    return was > 0 && was < leaves.length ? was : 0;
  });
  const ref = useRef<HTMLDialogElement>(null);
  const [paper, setPaper] = useState(false); // all pages, for printing; the screen has one
  const forward = useRef<HTMLButtonElement>(null);
  const awake = useAwake();
  useLayoutEffect(() => {
    const d = ref.current;
    forward.current?.setAttribute("autofocus", ""); // the one thing to press on a card
    d?.show();
    const show = hideRest();
    const print = () => flushSync(() => setPaper(true));
    window.addEventListener("beforeprint", print);
    return () => {
      window.removeEventListener("beforeprint", print);
      d?.close();
      show();
    };
  }, []);
  const go = (to: number) => {
    const next = Math.min(leaves.length - 1, Math.max(0, to));
    setN(next);
    store(kept, String(next));
    ref.current?.querySelector("[data-leaf-now]")?.scrollTo(0, 0);
  };
  const last = n === leaves.length - 1;
  // Of the whole window: what was pressed may be gone, and the focus with it.
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      if (e.key === "Escape") onClose();
      else if (e.key === "ArrowRight" || e.key === "PageDown") go(n + 1);
      else if (e.key === "ArrowLeft" || e.key === "PageUp") go(n - 1);
      else if (e.key === "Home") go(0);
      else if (e.key === "End") go(leaves.length - 1);
      else return;
      e.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  });
  return createPortal(
    <dialog
      ref={ref}
      aria-modal="true"
      aria-label={`${which === "mix" ? "Mixing card" : "Laying card"}: ${card.title}`}
      data-cardscreen={which}
      className="fixed inset-0 z-50 m-0 flex h-dvh max-h-none w-screen max-w-none flex-col bg-base-100 text-base-content print:static print:block print:h-auto print:w-auto print:overflow-visible"
    >
      <header className="flex items-center gap-3 border-base-300 border-b px-3 py-2 sm:px-6">
        {card.colour && <Swatch colour={card.colour} size={36} />}
        <h2 className="min-w-0 flex-1 font-semibold text-lg leading-tight sm:text-2xl">
          <span className="text-primary">{which === "mix" ? "Mix" : card.kind === "work" ? "Work" : "Lay"}</span>{" "}
          <bdi>{card.title}</bdi>
          <span className="block font-normal font-sans text-base text-secondary">
            <bdi>{p.about.piece}</bdi>, <bdi>{p.about.zone}</bdi>
          </span>
        </h2>
        {onOther && (
          <button type="button" data-do="other-card" className="btn no-print min-h-12" onClick={onOther}>
            {which === "mix" ? "Lay it" : "Mix it"}
          </button>
        )}
        <button
          type="button"
          data-do="print-card"
          className="btn btn-square no-print min-h-12 max-sm:hidden"
          aria-label="Print"
          title="Print"
          onClick={() => window.print()}
        >
          <Printer className="size-6" aria-hidden="true" />
        </button>
        <button
          type="button"
          data-close
          className="btn btn-square no-print min-h-12 min-w-12"
          aria-label="Close"
          title="Close: Escape"
          onClick={onClose}
        >
          <X className="size-7" aria-hidden="true" />
        </button>
      </header>
      <div className="no-print px-3 empty:hidden sm:px-6">
        <Ringing />
      </div>
      {leaves.map((l, i) => {
        if (i !== n && !paper) return null;
        return (
          <section
            key={l.id}
            aria-label={l.title}
            data-leaf={l.id}
            data-leaf-now={i === n ? "" : undefined}
            className={`min-h-0 flex-1 overflow-y-auto px-4 py-5 sm:px-10 print:block print:h-auto print:overflow-visible print:break-inside-avoid print:px-0 print:py-1 ${i === n ? "" : "hidden"}`}
          >
            <div className="mx-auto max-w-5xl">
              <p className="mb-2 font-head font-semibold text-accent text-xl print:mb-0 print:text-base">{l.title}</p>
              {l.body}
            </div>
          </section>
        );
      })}
      <footer className="board no-print grid grid-cols-[1fr_auto_1fr] items-center gap-3 px-3 py-2 sm:px-6">
        <button
          type="button"
          data-do="back"
          className="btn min-h-16 text-xl"
          disabled={n === 0}
          onClick={() => go(n - 1)}
        >
          <ArrowLeft className="size-7" aria-hidden="true" /> Back
        </button>
        <span className="text-center tabular-nums" role="status" data-at={n + 1} data-of={leaves.length}>
          page {n + 1} of {leaves.length}
          <span className="block text-secondary text-xs max-sm:sr-only">
            {awake ? "the screen stays on" : "this browser lets the screen go dark"}
          </span>
        </span>
        <button
          ref={forward}
          type="button"
          data-do="next"
          className="btn btn-primary min-h-16 text-xl"
          onClick={() => (last ? onClose() : go(n + 1))}
        >
          {last ? "Done" : "Next"} <ArrowRight className="size-7" aria-hidden="true" />
        </button>
      </footer>
    </dialog>,
    document.body,
  );
}

/**
 * hideRest takes the rest of the page out of sight, of reach and of drawing, and returns what brings it back as it
 * stood. A modal dialog does so too, but has the browser look at the styles of the whole page.
 */
function hideRest(): () => void {
  const rest = document.getElementById("root");
  if (!rest) return () => {};
  const { scrollX, scrollY } = window;
  rest.style.containIntrinsicSize = `${rest.offsetWidth}px ${rest.offsetHeight}px`;
  rest.style.contentVisibility = "hidden";
  rest.classList.add("no-print");
  return () => {
    rest.style.contentVisibility = "";
    rest.classList.remove("no-print");
    rest.style.containIntrinsicSize = "";
    window.scrollTo(scrollX, scrollY);
  };
}
