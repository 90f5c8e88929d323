import { ArrowLeft, ArrowRight, Printer, X } from "lucide-react";
import { type ReactNode, useLayoutEffect, useRef, useState } from "react";
import { flushSync } from "react-dom";
import type { Overview, Piece, Schemas } from "../api/client";
import { StartClock } from "../clocks/StartClock";
import { Swatch } from "../colour/Swatch";
import { unbroken } from "../ui/units";
import { Portions } from "./MixView";
import { OrderDrawing } from "./OrderDrawing";
import { useAwake } from "./useAwake";
import type { Card, Turn } from "./useCards";

type About = Parameters<typeof StartClock>[0]["about"];

type Props = {
  card: Card;
  which: "mix" | "lay";
  order: Turn[];
  piece: Piece;
  overview: Overview | undefined;
  about: About;
  onOther?: () => void;
  onClose: () => void;
};

/** Leaf is one page of a card: what is seen at once, at arm's length. */
type Leaf = { id: string; title: string; body: ReactNode };

/**
 * CardScreen is a card over the whole screen, one thing at a time, in large type. Nothing is typed; the screen stays on.
 */
export function CardScreen(p: Props) {
  const { card, which, onOther, onClose } = p;
  const leaves = which === "mix" ? mixLeaves(p) : layLeaves(p);
  const kept = `rutile.card.${p.about.piece_id}.${p.about.zone_id}.${card.id}.${which}`;
  const [n, setN] = useState(() => {
    const was = Number(sessionStorage.getItem(kept) ?? 0);
    return was > 0 && was < leaves.length ? was : 0;
  });
  const ref = useRef<HTMLDialogElement>(null);
  const [paper, setPaper] = useState(false); // all pages, for printing; the screen has one
  const forward = useRef<HTMLButtonElement>(null);
  const awake = useAwake();
  useLayoutEffect(() => {
    const d = ref.current;
    forward.current?.setAttribute("autofocus", ""); // the one thing to press on a card
    d?.showModal();
    const print = () => flushSync(() => setPaper(true));
    window.addEventListener("beforeprint", print);
    return () => {
      window.removeEventListener("beforeprint", print);
      d?.close();
    };
  }, []);
  const go = (to: number) => {
    const next = Math.min(leaves.length - 1, Math.max(0, to));
    setN(next);
    try {
      sessionStorage.setItem(kept, String(next));
    } catch {
      // After a reload it begins at the front.
    }
    ref.current?.querySelector("[data-leaf-now]")?.scrollTo(0, 0);
  };
  const last = n === leaves.length - 1;
  return (
    <dialog
      ref={ref}
      aria-label={`${which === "mix" ? "Mixing card" : "Laying card"}: ${card.title}`}
      data-cardscreen={which}
      className="m-0 flex h-dvh max-h-none w-screen max-w-none flex-col bg-base-100 text-base-content print:static print:block print:h-auto print:w-auto print:overflow-visible"
      onCancel={(e) => {
        e.preventDefault();
        onClose();
      }}
      onKeyDown={(e) => {
        if (e.ctrlKey || e.metaKey || e.altKey) return;
        if (e.key === "ArrowRight" || e.key === "PageDown") go(n + 1);
        else if (e.key === "ArrowLeft" || e.key === "PageUp") go(n - 1);
        else if (e.key === "Home") go(0);
        else if (e.key === "End") go(leaves.length - 1);
        else return;
        e.preventDefault();
      }}
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
    </dialog>
  );
}

function Big({ children }: { children: ReactNode }) {
  return <p className="mb-4 text-3xl leading-tight sm:text-4xl lg:text-5xl print:mb-1 print:text-lg">{children}</p>;
}

function Lines({ of }: { of: string[] }) {
  return (
    <ul className="grid gap-2 text-xl print:gap-1 print:text-base">
      {of.filter(Boolean).map((s) => (
        <li key={s} className="sheet rounded px-3 py-1">
          {unbroken(s)}
        </li>
      ))}
    </ul>
  );
}

function Clocks({ of, about }: { of: Schemas["CardClock"][]; about: About }) {
  return (
    <div className="mt-4 flex flex-wrap gap-3 print:mt-1">
      {of.map((c) => (
        <StartClock key={`${c.kind}${c.says}`} clock={c} about={about} big />
      ))}
    </div>
  );
}

function stepLeaves(steps: Schemas["CardStep"][], about: About, of: string): Leaf[] {
  return steps.map((s, i) => ({
    id: `${of}${i + 1}`,
    title: `Step ${i + 1}`,
    body: (
      <>
        <Big>{unbroken(s.says)}</Big>
        {s.clock && <Clocks of={[s.clock]} about={about} />}
        {steps[i + 1] && (
          <p className="no-print mt-8 text-secondary text-xl">
            <b className="font-semibold">Then:</b> {unbroken(steps[i + 1]?.says ?? "")}
          </p>
        )}
      </>
    ),
  }));
}

function mixLeaves({ card, about }: Props): Leaf[] {
  const { mix, batch } = card;
  if (!mix) return [];
  const leaves: Leaf[] = [];
  if (batch && batch.portions.length > 0) {
    leaves.push({
      id: "in",
      title: "What goes in",
      body: (
        <>
          <Portions batch={batch} big />
          <div className="mt-4">
            <Lines of={[batch.life ?? "", ...batch.notes, batch.like ?? ""]} />
          </div>
        </>
      ),
    });
  }
  leaves.push(...stepLeaves(mix.steps, about, "mix"));
  leaves.push({
    id: "ready",
    title: "The pot is ready",
    body: (
      <>
        <dl className="grid gap-3 text-xl print:gap-1 print:text-base">
          <Pair name="Too thick" says={mix.too_thick} />
          <Pair name="Too thin" says={mix.too_thin} />
          {mix.foam && <Pair name="Foam" says={mix.foam} />}
        </dl>
        <div className="mt-4">
          <Lines of={[batch?.life ?? "", ...mix.keeps, batch?.left ?? ""]} />
        </div>
        <Clocks of={mix.clocks} about={about} />
      </>
    ),
  });
  return leaves;
}

function Pair({ name, says }: { name: string; says: string }) {
  return (
    <div>
      <dt className="font-semibold text-primary">{name}</dt>
      <dd>{unbroken(says)}</dd>
    </div>
  );
}

function layLeaves({ card, about, order, overview, piece }: Props): Leaf[] {
  const { lay } = card;
  if (!lay) return [];
  const leaves: Leaf[] = [];
  const before = [...lay.protect, ...lay.setup, ...lay.before];
  if (lay.tool || before.length) {
    leaves.push({
      id: "before",
      title: "Before the first stroke",
      body: (
        <>
          {lay.tool && (
            <Big>
              {lay.tool}
              {lay.why && <span className="mt-2 block text-2xl text-secondary print:text-base">{lay.why}</span>}
            </Big>
          )}
          <Lines of={[lay.load ?? "", ...before]} />
        </>
      ),
    });
  }
  if (lay.ordered && order.length && overview) {
    leaves.push({
      id: "order",
      title: "The order",
      body: <Order order={order} overview={overview} piece={piece} across={!!lay.across} />,
    });
  } else if (lay.order?.length) {
    leaves.push({ id: "order", title: "The order", body: <Lines of={lay.order} /> });
  }
  if (lay.stroke) {
    leaves.push({
      id: "stroke",
      title: lay.once ? "One stroke" : "Strokes and sections",
      body: (
        <>
          <Big>
            {lay.stroke}
            {lay.stroke_why && (
              <span className="mt-2 block text-2xl text-secondary print:text-base">{lay.stroke_why}</span>
            )}
          </Big>
          <Lines of={[lay.section ?? "", lay.wipe ? `Wipe. ${lay.wipe}` : "", lay.cloth ?? "", lay.little ?? ""]} />
        </>
      ),
    });
  }
  leaves.push(...stepLeaves(lay.steps, about, "lay"));
  if (lay.faults.length || lay.runs) {
    leaves.push({
      id: "faults",
      title: "If something goes wrong",
      body: (
        <>
          {lay.runs && <p className="mb-3 text-xl">It gathers {lay.runs}</p>}
          <table className="w-full border-collapse text-left text-lg print:text-sm">
            <thead>
              <tr className="border-base-content border-b-2 max-sm:hidden">
                <td className="w-1/5 py-1" />
                <th scope="col" className="w-2/5 py-1 pr-3 font-semibold">
                  Wet
                </th>
                <th scope="col" className="py-1 font-semibold">
                  Dry
                </th>
              </tr>
            </thead>
            <tbody>
              {lay.faults.map((f) => (
                <tr
                  key={f.id}
                  className="border-base-300 border-b align-top max-sm:block max-sm:py-2"
                  data-fault={f.id}
                >
                  <th scope="row" className="py-1.5 pr-3 font-semibold text-primary max-sm:block max-sm:py-0">
                    {f.name}
                  </th>
                  <td className="py-1.5 pr-3 leading-snug max-sm:block max-sm:py-0 max-sm:before:content-['Wet:_']">
                    {f.wet}
                  </td>
                  <td className="py-1.5 leading-snug max-sm:block max-sm:py-0 max-sm:before:content-['Dry:_']">
                    {f.dry}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      ),
    });
  }
  if (lay.clocks.length || lay.clean) {
    leaves.push({
      id: "after",
      title: "The coat is on",
      body: (
        <>
          <Clocks of={lay.clocks} about={about} />
          <dl className="mt-4 grid gap-3 text-xl print:gap-1 print:text-base">
            {lay.clean && <Pair name="Clean up" says={lay.clean} />}
            {lay.keep && <Pair name="Until the next coat" says={lay.keep} />}
            {lay.waste && <Pair name="Rags and rests" says={lay.waste} />}
          </dl>
        </>
      ),
    });
  }
  return leaves;
}

type OrderProps = { order: Turn[]; overview: Overview; piece: Piece; across: boolean };

/** Order is walked through turn by turn: what is painted now is marked in the drawing. */
function Order({ order, overview, piece, across }: OrderProps) {
  const [now, setNow] = useState(order[0]?.n ?? 1);
  const apart = order.some((t) => t.apart);
  return (
    <div className="flex flex-wrap items-start gap-6">
      <OrderDrawing
        order={order}
        overview={overview}
        piece={piece}
        width={440}
        height={430}
        now={now}
        across={across}
      />
      <ol className="min-w-64 flex-1 text-lg">
        {order.map((t, i) => (
          <li key={t.n}>
            {apart && (i === 0 || order[i - 1]?.apart !== t.apart) && (
              <p className="mt-1 font-semibold text-secondary text-sm">
                {t.apart ? "Taken off, each lying by itself" : "Then the body"}
              </p>
            )}
            <button
              type="button"
              data-turn-row={t.n}
              aria-current={t.n === now ? "step" : undefined}
              className={`flex min-h-11 w-full items-center gap-3 rounded px-2 text-left leading-tight ${t.n === now ? "bg-base-200 font-semibold" : ""}`}
              onClick={() => setNow(t.n)}
            >
              <span className="w-6 shrink-0 text-right font-head tabular-nums">{t.n}</span>
              <span>
                {t.says}
                {t.marks.length === 0 && <span className="text-secondary text-sm"> (not seen from the front)</span>}
              </span>
            </button>
          </li>
        ))}
      </ol>
    </div>
  );
}
