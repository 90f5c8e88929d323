import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Overview, type Part, type Piece, type Schemas, TYPING, why } from "../api/client";
import { Dialog } from "../ui/Dialog";
import { Field, NumberField } from "../ui/Field";
import { useLast, useLater } from "../ui/later";
import { Elevation } from "./Elevation";

type Template = Schemas["TemplateWord"];

/** bare is an overview with only a drawing in it. */
const bare = (elevation: Template["elevation"]): Overview => ({
  parts: [],
  zones: [],
  elevation,
  mending: { minutes: 0, work: "", items: [], says: [] },
  fittings: [],
  suggested: [],
  loose: 0,
});

const NOTHING: Piece = { format: "rutile/piece", version: 1 };

/** useTemplates are the templates of common pieces. */
export function useTemplates() {
  return useQuery({
    queryKey: ["templates"],
    queryFn: ({ signal }) => answer(api.GET("/api/templates", { signal })),
    staleTime: Infinity,
  });
}

type Props = { all: Template[]; onMake: (parts: Part[]) => void };

/** Templates are common pieces to begin with: choose one, enter its sizes, and it becomes parts. */
export function Templates({ all, onMake }: Props) {
  const [open, setOpen] = useState<Template>();
  return (
    <>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(6.2rem,1fr))] gap-2">
        {all.map((t) => (
          <li key={t.id}>
            <button
              data-template={t.id}
              type="button"
              className="flex h-full w-full flex-col items-center justify-end gap-1 rounded border border-base-300 bg-base-100 px-1 pt-2 pb-1 hover:border-accent"
              onClick={() => setOpen(t)}
            >
              <Elevation overview={bare(t.elevation)} piece={NOTHING} width={84} height={74} />
              <span className="text-sm leading-tight">{t.name}</span>
            </button>
          </li>
        ))}
      </ul>
      {open && (
        <Sizes
          template={open}
          onClose={() => setOpen(undefined)}
          onMake={(parts) => {
            setOpen(undefined);
            onMake(parts);
          }}
        />
      )}
    </>
  );
}

const ask = (id: string, sizes: string, counts: string, signal?: AbortSignal) =>
  answer(api.GET("/api/templates/{id}", { params: { path: { id }, query: { sizes, counts } }, signal }));

type SizesProps = { template: Template; onClose: () => void; onMake: (parts: Part[]) => void };

/** Sizes takes a template's outer sizes and counts, and shows the result. */
function Sizes({ template: t, onClose, onMake }: SizesProps) {
  const [text, setText] = useState(t.sizes);
  const [counts, setCounts] = useState(t.counts.map((c) => c.usual));
  const n = counts.join(",");
  const asked = useLater(text, TYPING);
  const shown = useQuery({
    queryKey: ["template", t.id, asked, n],
    queryFn: ({ signal }) => ask(t.id, asked, n, signal),
    placeholderData: keepPreviousData,
    retry: false,
  });
  // The fields count as they are, drawn or not.
  const make = useMutation({ mutationFn: () => ask(t.id, text, n), onSuccess: (m) => onMake(m.parts) });
  const wrong = make.error ?? shown.error;
  const error = wrong ? why(wrong, "The server does not answer; try again in a moment.") : undefined;
  const made = useLast(shown.data);
  return (
    <Dialog title={t.name} wide onClose={onClose}>
      <form
        className="grid gap-5 sm:grid-cols-[17rem_1fr]"
        onSubmit={(e) => {
          e.preventDefault();
          make.mutate();
        }}
      >
        <div>
          <Field label={`Sizes: ${t.asks}`} error={error} hint="In any units, as measured">
            {(id) => (
              <input
                id={id}
                className={`input w-full ${error ? "input-error" : ""}`}
                value={text}
                aria-invalid={!!error}
                autoComplete="off"
                autoFocus
                onFocus={(e) => e.target.select()}
                onChange={(e) => {
                  setText(e.target.value);
                  make.reset();
                }}
              />
            )}
          </Field>
          {t.counts.map((c, i) => (
            <NumberField
              key={c.name}
              label={`How many ${c.name}`}
              value={counts[i]}
              of="part.count"
              min={c.least}
              required
              onChange={(k) => k !== undefined && setCounts(counts.map((x, j) => (j === i ? k : x)))}
            />
          ))}
          <button data-do="make" type="submit" className="btn btn-primary mt-2 h-12 w-full">
            Create its parts
          </button>
          <p className="mt-2 text-secondary text-sm">You can measure and change each part afterwards.</p>
        </div>
        <div className="grid min-h-64 place-items-center">
          {made && (
            <Elevation overview={made.overview} piece={{ ...NOTHING, parts: made.parts }} width={340} height={260} />
          )}
        </div>
      </form>
    </Dialog>
  );
}
