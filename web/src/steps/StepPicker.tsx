import { useEffect, useMemo, useRef, useState } from "react";
import { answer, api, type Piece, type Schemas, type Step } from "../api/client";
import { useVocab } from "../piece/vocab";
import { Joint } from "../ui/Mark";
import { StepIcon } from "./icons";

type Offer = Schemas["NextStep"];
type Props = {
  piece: Piece;
  zone: string;
  at: number; // after how many steps
  asked: string;
  mending: boolean; // the plan is not sound as it is: what makes it so is told
  onPick: (s: Step) => void;
  onClose: () => void;
};

/**
 * StepPicker offers what makes sense next, with the reason, and below it every step there is, with what it would
 * bring. Typing narrows both down.
 */
export function StepPicker({ piece, zone, at, asked, mending, onPick, onClose }: Props) {
  const v = useVocab();
  const [query, setQuery] = useState(asked);
  const [offers, setOffers] = useState<Offer[]>();
  const [active, setActive] = useState(0);
  const [eager, setEager] = useState(false); // Enter was pressed before there was anything to pick
  const list = useRef<HTMLDivElement>(null);
  const frame = useRef<HTMLElement>(null);
  useEffect(() => {
    frame.current?.scrollIntoView({ block: "nearest" });
  }, []);
  useEffect(() => {
    const stop = new AbortController();
    answer(api.POST("/api/next", { params: { query: { zone, at } }, body: piece, signal: stop.signal }))
      .then(setOffers)
      .catch(() => {
        // Without an answer every step is offered alike.
        if (!stop.signal.aborted) setOffers(v.starts.map((s) => ({ ...s, verdict: "watch" })));
      });
    return () => stop.abort();
  }, [piece, zone, at, v]);
  const q = query.trim().toLowerCase();
  const found = useMemo(() => {
    const also = (s: Step) => [...v.products, ...v.cleaners].find((w) => w.id === (s.product ?? s.with))?.also ?? "";
    const words = q.split(/\s+/);
    const fit = (o: Offer) => {
      const text = `${o.name} ${o.note ?? ""} ${o.group} ${also(o.step)}`.toLowerCase();
      return words.every((w) => text.includes(w));
    };
    const all = (offers ?? []).filter(fit);
    // Whoever types a name means that name first.
    const named = (o: Offer) => (q && o.name.toLowerCase().startsWith(q) ? 0 : 1);
    const sensible = all.filter((o) => o.why);
    const others = all.filter((o) => !o.why);
    if (q) others.sort((a, b) => named(a) - named(b));
    return { sensible, others, groups: [...new Set(others.map((o) => o.group))] };
  }, [offers, q, v]);
  const named = q !== "" && found.others[0]?.name.toLowerCase().startsWith(q);
  const order = [...found.sensible, ...found.groups.flatMap((g) => found.others.filter((o) => o.group === g))];
  const first = named && found.sensible.length === 0 ? order.indexOf(found.others[0] as Offer) : 0;
  const here = Math.min(active === 0 ? Math.max(0, first) : active, order.length - 1);
  const go = (to: number) => {
    const n = Math.max(0, Math.min(order.length - 1, to));
    setActive(n);
    list.current?.querySelector(`[data-n="${n}"]`)?.scrollIntoView({ block: "nearest" });
  };
  const pick = (o: Offer) => {
    if (!o.barred) onPick(o.step);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: once there are offers, the first one fits what was typed
  useEffect(() => {
    const o = order[here];
    if (!offers || !eager) return;
    setEager(false);
    if (o) pick(o);
  }, [offers, eager]);
  const option = (o: Offer) => {
    const n = order.indexOf(o);
    return (
      // biome-ignore lint/a11y/useKeyWithClickEvents: the field above takes the keys
      <div
        key={o.name}
        id={`step-option-${n}`}
        data-n={n}
        role="option"
        tabIndex={-1}
        aria-selected={n === here}
        className={`flex min-h-12 cursor-pointer items-center gap-2.5 rounded px-2.5 py-1.5 ${n === here ? "bg-base-200 outline outline-2 outline-accent" : "hover:bg-base-200"}`}
        aria-disabled={!!o.barred}
        onClick={() => pick(o)}
      >
        <StepIcon kind={o.step.do} className="size-7 text-primary" />
        <span className="min-w-0 flex-1 leading-tight">
          <span className="block font-medium">{o.name}</span>
          {o.barred ? (
            <span className="block text-error text-sm">{o.barred}</span>
          ) : o.why ? (
            <span className="block text-sm">{o.why}.</span>
          ) : o.brings ? (
            <span className="block text-error text-sm">Would bring: {o.brings}</span>
          ) : (
            <span className="block text-secondary text-sm">{o.note}</span>
          )}
        </span>
        {mending && o.why && o.verdict === "sound" && (
          <span className="flex items-center gap-1 text-sm">
            <Joint verdict="sound" /> <span className="max-sm:sr-only">then it is sound</span>
          </span>
        )}
      </div>
    );
  };
  return (
    <section
      ref={frame}
      className="sheet rounded-r bg-base-100 p-3 shadow-md outline outline-base-300"
      aria-label={at ? `Add a step after ${at}` : "Add the first step"}
    >
      <div className="flex items-center gap-2">
        <input
          // biome-ignore lint/a11y/noAutofocus: the painter has just asked for it
          autoFocus
          role="combobox"
          aria-expanded="true"
          aria-controls="step-options"
          aria-activedescendant={order.length ? `step-option-${here}` : undefined}
          className="input h-12 flex-1 text-base"
          placeholder="Type: degreaser, shellac, sand …"
          aria-label="Find a step"
          value={query}
          onChange={(e) => {
            setQuery(e.target.value);
            setActive(0);
          }}
          onKeyDown={(e) => {
            const o = order[here];
            if (e.key === "Escape") onClose();
            else if (e.key === "ArrowDown") go(here + 1);
            else if (e.key === "ArrowUp") go(here - 1);
            else if (e.key === "Enter" && o) pick(o);
            else if (e.key === "Enter" && !offers) setEager(true);
            else return;
            e.preventDefault();
            e.stopPropagation();
          }}
        />
        <button type="button" className="btn btn-ghost h-12" onClick={onClose}>
          Close
        </button>
      </div>
      {offers && order.length === 0 && (
        <p className="mt-2 text-secondary">There is no step like “{query.slice(0, 40)}”.</p>
      )}
      <div
        ref={list}
        id="step-options"
        role="listbox"
        aria-label="Steps"
        className="mt-2 max-h-[min(26rem,52dvh)] min-h-64 overflow-y-auto"
      >
        {found.sensible.length > 0 && (
          // biome-ignore lint/a11y/useSemanticElements: options stand in groups
          <div role="group" aria-label="Makes sense next" className="mb-3">
            <div className="mb-1 font-head font-semibold text-primary" aria-hidden="true">
              Makes sense next
            </div>
            <div className="grid gap-0.5">{found.sensible.map(option)}</div>
          </div>
        )}
        {found.groups.map((g) => (
          // biome-ignore lint/a11y/useSemanticElements: options stand in groups
          <div key={g} role="group" aria-label={g} className="mb-2">
            <div className="mb-0.5 font-head font-semibold text-secondary text-sm" aria-hidden="true">
              {g}
            </div>
            <div className="grid gap-0.5 sm:grid-cols-2">{found.others.filter((o) => o.group === g).map(option)}</div>
          </div>
        ))}
      </div>
    </section>
  );
}
