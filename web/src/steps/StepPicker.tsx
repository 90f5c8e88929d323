import { useState } from "react";
import type { Step } from "../api/client";
import { useVocab } from "../piece/vocab";
import { StepIcon } from "./icons";

type Choice = { key: string; group: string; kind: string; name: string; note: string; step: Step };

/** StepPicker offers every step there is; typing narrows it down. */
type Props = { asked: string; onPick: (s: Step) => void; onClose: () => void };

export function StepPicker({ asked, onPick, onClose }: Props) {
  const v = useVocab();
  const [query, setQuery] = useState(asked);
  const all: Choice[] = [
    ...v.cleaners.map(
      (c): Choice => ({
        key: c.id,
        group: "Clean",
        kind: "clean",
        name: c.name,
        note: c.shifts
          .filter((s) => s !== "dust" || c.shifts.length === 1)
          .map((s) => v.soils.find((w) => w.id === s)?.name ?? s)
          .join(", "),
        step: { do: "clean", with: c.id, rinse: c.rinses > 0 || undefined },
      }),
    ),
    {
      key: "sand",
      group: "Sand and dust",
      kind: "abrade",
      name: "Sand",
      note: "220 by hand to begin with",
      step: { do: "abrade", grit: 220, how: "hand" },
    },
    {
      key: "pad",
      group: "Sand and dust",
      kind: "abrade",
      name: "Scuff with a fine pad",
      note: "vinyl, foil, zinc",
      step: { do: "abrade", how: "pad" },
    },
    {
      key: "dust",
      group: "Sand and dust",
      kind: "dust",
      name: "Dust off",
      note: "vacuum and tack cloth",
      step: { do: "dust" },
    },
    {
      key: "raise",
      group: "Sand and dust",
      kind: "raise_grain",
      name: "Raise the grain",
      note: "damp cloth, dry, knock back",
      step: { do: "raise_grain" },
    },
    ...v.products.map(
      (p): Choice => ({
        key: p.id,
        group: p.role[0]?.toUpperCase() + p.role.slice(1),
        kind: "coat",
        name: p.name,
        note: p.note ?? "",
        step: {
          do: "coat",
          product: p.id,
          coats: p.role === "paint" || p.role === "clear" ? 2 : 1,
          method:
            p.id.includes("aerosol") || p.id === "clear_lacquer"
              ? "aerosol"
              : p.role.startsWith("wax")
                ? "rag"
                : "brush",
        },
      }),
    ),
    {
      key: "wait",
      group: "Wait",
      kind: "wait",
      name: "Wait",
      note: "a day to begin with",
      step: { do: "wait", hours: 24 },
    },
    ...v.steps
      .filter((s) => !s.judged)
      .map(
        (s): Choice => ({
          key: s.id,
          group: "Kept in the plan, not judged yet",
          kind: s.id,
          name: s.name,
          note: "",
          step: blank(s.id),
        }),
      ),
  ];
  const q = query.trim().toLowerCase();
  const found = all.filter((c) => `${c.name} ${c.note} ${c.group}`.toLowerCase().includes(q));
  const groups = [...new Set(found.map((c) => c.group))];
  return (
    <section className="rounded border border-base-300 bg-base-100 p-3" aria-label="Add a step">
      <div className="flex gap-2">
        <input
          // biome-ignore lint/a11y/noAutofocus: the painter has just asked for it
          autoFocus
          className="input flex-1"
          placeholder="Type: degreaser, shellac, sand …"
          aria-label="Find a step"
          value={query}
          onChange={(e) => setQuery(e.target.value)}
          onKeyDown={(e) => {
            if (e.key === "Escape") onClose();
            if (e.key === "Enter" && found[0]) onPick(found[0].step);
          }}
        />
        <button type="button" className="btn btn-ghost" onClick={onClose}>
          Close
        </button>
      </div>
      {found.length === 0 && <p className="mt-2 text-secondary">There is no step like “{query.slice(0, 40)}”.</p>}
      <div className="mt-2 max-h-80 overflow-y-auto">
        {groups.map((g) => (
          <div key={g} className="mb-2">
            <h4 className="mb-1 font-semibold text-secondary text-sm">{g}</h4>
            <ul className="grid gap-1 sm:grid-cols-2">
              {found
                .filter((c) => c.group === g)
                .map((c) => (
                  <li key={c.key}>
                    <button
                      type="button"
                      className="flex min-h-11 w-full cursor-pointer items-center gap-2 rounded px-2 py-1 text-left hover:bg-base-200"
                      onClick={() => onPick(c.step)}
                    >
                      <StepIcon kind={c.kind} className="size-5 text-primary" />
                      <span>
                        <span className="block leading-tight">{c.name}</span>
                        <span className="block text-secondary text-xs leading-tight">{c.note}</span>
                      </span>
                    </button>
                  </li>
                ))}
            </ul>
          </div>
        ))}
      </div>
    </section>
  );
}

/** blank fills in what a kind of step cannot be without. */
function blank(kind: string): Step {
  switch (kind) {
    case "strip":
      return { do: kind, how: "chemical" };
    case "fill":
      return { do: kind, with: "filler_fine" };
    case "remove":
      return { do: kind, what: "handles" };
    case "effect":
      return { do: kind, effect: "distress_dry" };
    case "test":
      return { do: kind, rating: 5 };
    default:
      return { do: kind };
  }
}
