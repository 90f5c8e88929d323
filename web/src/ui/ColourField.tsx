import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";
import { useVocab } from "../api/vocab";
import { Field, showText, useTyped } from "./Field";
import { useName } from "./focus";
import { useLater } from "./later";

type Props = {
  label: string;
  value: string | undefined;
  quick?: boolean; // offers colours to click as well
  name?: string;
  onChange: (v: string | undefined) => void;
};

/** useColourName is the plain name of a colour, and empty while it is not known. */
export function useColourName(hex: string | undefined): string {
  const q = useQuery({
    queryKey: ["colour", hex],
    queryFn: ({ signal }) => answer(api.GET("/api/colour", { params: { query: { of: hex } }, signal })),
    enabled: hex !== undefined,
    staleTime: Infinity,
  });
  return (hex && q.data?.name) || "";
}

// Capitals, hyphens and the spelling gray make no difference to a name.
const plain = (s: string) =>
  s
    .toLowerCase()
    .replace(/-/g, " ")
    .replace(/\bgray\b/g, "grey")
    .replace(/\blight\b/g, "pale")
    .trim()
    .replace(/\s+/g, " ");

/** ColourField takes a colour as #rrggbb or by a plain name, typed or picked, and says the name that comes nearest. */
export function ColourField({ label, value, quick, name, onChange }: Props) {
  const ref = useName<HTMLInputElement>(name && `field ${name}`);
  const { text, setText, error, give, refuse, begin } = useTyped(value, showText, onChange);
  const v = useVocab();
  const called = useColourName(useLater(value, 200));
  const type = (t: string) => {
    setText(t);
    const s = t.trim().toLowerCase().replace(/^#/, "");
    const named = v.colours.find((c) => plain(c.name) === plain(t));
    if (s === "") give(undefined);
    else if (/^[0-9a-f]{6}$/.test(s)) give(`#${s}`);
    else if (named) give(named.colour);
    else refuse("Enter a name such as pale grey-green, or #rrggbb such as #e4e8df.");
  };
  return (
    <Field label={label} error={error} hint={value && (text.startsWith("#") || !text ? called : `${called}, ${value}`)}>
      {(id) => (
        <>
          <span className="flex gap-2">
            <input
              type="color"
              aria-label={`Pick: ${label}`}
              className="h-10 w-12 shrink-0 cursor-pointer rounded border border-base-300 bg-base-100 p-1"
              value={value ?? "#ffffff"}
              onChange={(e) => type(e.target.value)}
            />
            <input
              ref={ref}
              id={id}
              data-field={name}
              data-wrong={error ? "" : undefined}
              className={`input w-full ${error ? "input-error" : ""}`}
              placeholder="name or #rrggbb"
              list={`${id}-names`}
              autoComplete="off"
              value={text}
              onFocus={begin}
              onChange={(e) => type(e.target.value)}
            />
            <datalist id={`${id}-names`}>
              {v.colours.map((c) => (
                <option key={c.name} value={c.name} />
              ))}
            </datalist>
          </span>
          {quick && (
            <span className="mt-1 flex flex-wrap gap-1">
              {v.quick_colours.map((c) => (
                <button
                  key={c.colour}
                  type="button"
                  aria-label={c.name}
                  data-quick={c.colour}
                  aria-pressed={value === c.colour}
                  title={c.name}
                  className={`size-9 rounded border ${value === c.colour ? "border-2 border-primary" : "border-base-300"}`}
                  style={{ background: c.colour }}
                  onClick={() => {
                    setText(c.colour);
                    give(c.colour);
                  }}
                />
              ))}
            </span>
          )}
        </>
      )}
    </Field>
  );
}
