import { useState } from "react";
import type { Step } from "../api/client";
import { useVocab } from "../piece/vocab";
import { StepIcon } from "./icons";

type Props = { asked: string; onPick: (s: Step) => void; onClose: () => void };

/** StepPicker offers every step there is; typing narrows it down. */
export function StepPicker({ asked, onPick, onClose }: Props) {
  const v = useVocab();
  const [query, setQuery] = useState(asked);
  const q = query.trim().toLowerCase();
  const found = v.starts.filter((c) => `${c.name} ${c.note ?? ""} ${c.group}`.toLowerCase().includes(q));
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
                  <li key={c.name}>
                    <button
                      type="button"
                      className="flex min-h-11 w-full cursor-pointer items-center gap-2 rounded px-2 py-1 text-left hover:bg-base-200"
                      onClick={() => onPick(c.step)}
                    >
                      <StepIcon kind={c.step.do} className="size-5 text-primary" />
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
