import { type ReactNode, useEffect, useId, useRef, useState } from "react";
import { useLimit } from "../api/vocab";
import { useName } from "./focus";

type FieldProps = { label: string; hint?: string; error?: string; children: (id: string) => ReactNode };

/** Field is a label, its input, and its error. */
export function Field({ label, hint, error, children }: FieldProps) {
  const id = useId();
  return (
    <div className="mb-2">
      <label htmlFor={id} className="mb-0.5 block font-medium text-secondary text-sm">
        {label}
      </label>
      {children(id)}
      {error ? (
        <p role="alert" className="mt-0.5 text-error text-sm">
          {error}
        </p>
      ) : (
        hint && <p className="mt-0.5 text-secondary text-xs">{hint}</p>
      )}
    </div>
  );
}

/**
 * useTyped keeps a field's text as it was typed, even if it is invalid. The text follows the value only when
 * something else has changed it: an undo, another tab. If the text ends invalid, the value goes back to what it was
 * before the typing began.
 */
export function useTyped<T>(value: T, show: (v: T) => string, onChange: (v: T) => void) {
  const [text, setText] = useState(show(value));
  const [error, setError] = useState<string>();
  const given = useRef(value);
  const before = useRef(value);
  useEffect(() => {
    if (value !== given.current) {
      given.current = value;
      before.current = value;
      setText(show(value));
      setError(undefined);
    }
  }, [value, show]);
  const give = (v: T) => {
    setError(undefined);
    if (v === given.current) return;
    given.current = v;
    onChange(v);
  };
  const refuse = (says: string) => {
    setError(says);
    if (given.current === before.current) return;
    given.current = before.current;
    onChange(before.current);
  };
  const begin = () => {
    before.current = given.current;
  };
  return { text, setText, error, give, refuse, begin };
}

const showNumber = (v: number | undefined) => (v === undefined ? "" : String(v));
export const showText = (v: string | undefined) => v ?? "";

type NumberProps = {
  label: string;
  unit?: string;
  value: number | undefined;
  of?: string; // the field with its limits
  min?: number; // narrower ones, or in other units
  max?: number;
  above?: boolean; // min itself is not allowed
  times?: number; // factor between the stored and the shown value
  hint?: string;
  required?: boolean;
  name?: string;
  onChange: (v: number | undefined) => void;
};

/** NumberField keeps the text as it was typed, even if it is invalid; only a valid number is passed on. */
export function NumberField(p: NumberProps) {
  const limit = useLimit(p.of);
  const times = p.times ?? 1;
  const shown = p.value === undefined || times === 1 ? p.value : Number((p.value * times).toFixed(4));
  const whole = !!limit.whole && times === 1;
  const min = p.min ?? (limit.least ?? -Infinity) * times;
  const max = p.max ?? (limit.most ?? Infinity) * times;
  const above = p.above || limit.open;
  const keep = (v: number) => {
    if (times === 1) return v;
    return limit.whole ? Math.round(v / times) : Number((v / times).toFixed(6));
  };
  const { text, setText, error, give, refuse, begin } = useTyped(shown, showNumber, (v) =>
    p.onChange(v === undefined ? undefined : keep(v)),
  );
  const ref = useName<HTMLInputElement>(p.name && `field ${p.name}`);

  const type = (t: string) => {
    setText(t);
    const v = parse(t);
    if (t.trim() === "") {
      if (p.required) {
        refuse("Enter a number.");
      } else {
        give(undefined);
      }
    } else if (v === undefined || (whole && !Number.isInteger(v))) {
      refuse(`“${t.slice(0, 20)}” is not a ${whole ? "whole " : ""}number.`);
    } else if (v < min || v > max || (above && v === min)) {
      const unit = p.unit ? ` ${p.unit}` : "";
      refuse(
        above ? `Enter more than ${min} and at most ${max}${unit}.` : `Enter a number from ${min} to ${max}${unit}.`,
      );
    } else {
      give(v);
    }
  };
  return (
    <Field label={p.label} hint={p.hint ?? limit.hint} error={error}>
      {(id) => (
        <span className={`input w-full ${error ? "input-error" : ""}`}>
          <input
            ref={ref}
            id={id}
            data-field={p.name ?? p.of}
            data-wrong={error ? "" : undefined}
            inputMode="decimal"
            value={text}
            aria-invalid={!!error}
            autoComplete="off"
            onFocus={begin}
            onChange={(e) => type(e.target.value)}
          />
          {p.unit && <span className="text-secondary text-sm">{p.unit}</span>}
        </span>
      )}
    </Field>
  );
}

function parse(t: string): number | undefined {
  const s = t.trim().replace(",", ".");
  if (!/^[+-]?(\d+\.?\d*|\.\d+)$/.test(s)) return undefined;
  return Number(s);
}

type TextProps = {
  label: string;
  lines?: number; // of a longer text
  value: string;
  of: string; // the field with its length
  name?: string;
  hint?: string;
  eager?: boolean; // gets the focus at once
  onChange: (v: string) => void;
};

/** TextField takes a name, up to a length. */
export function TextField({ label, lines, value, of, name, hint, eager, onChange }: TextProps) {
  const { text, setText, error, give, refuse, begin } = useTyped<string | undefined>(value, showText, (v) =>
    onChange(v ?? ""),
  );
  const max = useLimit(of).max_len ?? Infinity;
  const ref = useName<HTMLInputElement>(name && `field ${name}`);
  const type = (t: string) => {
    setText(t);
    const n = [...t].length;
    if (n > max) {
      refuse(`At most ${max} characters; this has ${n}. Only the text up to the limit is saved.`);
    } else {
      give(t);
    }
  };
  return (
    <Field label={label} error={error} hint={hint}>
      {(id) =>
        lines ? (
          <textarea
            id={id}
            data-field={name ?? of}
            rows={lines}
            className={`w-full rounded border bg-base-100 px-3 py-2 ${error ? "border-error" : "border-base-300"}`}
            value={text}
            dir="auto"
            onFocus={begin}
            onChange={(e) => type(e.target.value)}
          />
        ) : (
          <input
            ref={ref}
            id={id}
            data-field={name ?? of}
            data-wrong={error ? "" : undefined}
            className={`input w-full ${error ? "input-error" : ""}`}
            value={text}
            dir="auto"
            // biome-ignore lint/a11y/noAutofocus: asked for where a name is the first thing to give
            autoFocus={eager}
            autoComplete="off"
            onFocus={(e) => {
              begin();
              if (eager) e.target.select();
            }}
            onChange={(e) => type(e.target.value)}
          />
        )
      }
    </Field>
  );
}
