import { X } from "lucide-react";
import type { Schemas } from "../api/client";

type Level = Schemas["Level"];
type Props = {
  label: string;
  field: string;
  words: { id: string; name: string }[];
  value: Level[] | undefined;
  unseen: string; // what an absent list means
  seen: string; // what an empty list means
  onChange: (v: Level[] | undefined) => void;
};

const LEVELS = ["light", "marked", "heavy"];

/** Levels is a list of things found, each light, marked or heavy; an absent list is not an empty one. */
export function Levels({ label, field, words, value, unseen, seen, onChange }: Props) {
  const left = words.filter((w) => !value?.some((l) => l.id === w.id));
  return (
    <fieldset className="mb-2 min-w-0">
      <legend className="mb-0.5 font-medium text-secondary text-sm">{label}</legend>
      <ul className="grid gap-1">
        {value?.map((l) => {
          const name = words.find((w) => w.id === l.id)?.name ?? l.id;
          return (
            <li key={l.id} className="flex flex-wrap items-center gap-x-1">
              <span className="min-w-0 flex-1">{name}</span>
              <span className="join order-last basis-full">
                {LEVELS.map((w, i) => (
                  <button
                    key={w}
                    type="button"
                    className={`btn join-item flex-1 px-2 font-normal ${l.level === i + 1 ? "btn-secondary" : "btn-outline border-base-300"}`}
                    aria-pressed={l.level === i + 1}
                    aria-label={`${name}: ${w}`}
                    onClick={() => onChange(value.map((x) => (x.id === l.id ? { ...x, level: i + 1 } : x)))}
                  >
                    {w}
                  </button>
                ))}
              </span>
              <button
                type="button"
                className="btn btn-sm btn-ghost px-1.5"
                aria-label={`Remove ${name}`}
                onClick={() => onChange(value.filter((x) => x.id !== l.id))}
              >
                <X className="size-4" aria-hidden="true" />
              </button>
            </li>
          );
        })}
      </ul>
      <select
        className="select mt-1 w-full"
        data-field={field}
        aria-label={`${label}: add`}
        value={value === undefined ? "?" : ""}
        onChange={(e) => {
          if (e.target.value === "?") onChange(undefined);
          else if (e.target.value === "none") onChange([]);
          else if (e.target.value) onChange([...(value ?? []), { id: e.target.value, level: 1 }]);
        }}
      >
        <option value="?">{unseen}</option>
        {value?.length ? <option value="">Add …</option> : <option value={value ? "" : "none"}>{seen}</option>}
        {left.map((w) => (
          <option key={w.id} value={w.id}>
            + {w.name}
          </option>
        ))}
      </select>
    </fieldset>
  );
}
