import { useEffect, useRef, useState } from "react";
import { Refused } from "../api/client";
import { Field, useTyped } from "./Field";

type Props<T> = {
  label: string;
  name?: string; // the field a finding may ask for
  value: T | undefined;
  show: (v: T | undefined) => string; // the same function from drawing to drawing
  ask: (text: string, signal: AbortSignal) => Promise<T>; // the server's reading of it
  means?: (v: T) => string; // what a typed text comes to
  hint?: string; // while nothing is typed
  placeholder?: string; // what counts while nothing is typed
  required?: boolean;
  onChange: (v: T | undefined) => void;
};

const RETRY = 3000; // ms

/**
 * AskedField takes a size as people write it. The server reads it; what was typed stays as it was typed, and what it
 * comes to stands below.
 */
export function AskedField<T extends string | number>(p: Props<T>) {
  const { text, setText, error, give, refuse, begin } = useTyped(p.value, p.show, p.onChange);
  const [silent, setSilent] = useState(false);
  const asking = useRef<AbortController>(undefined);
  useEffect(() => () => asking.current?.abort(), []);
  const read = (t: string) => {
    asking.current?.abort();
    setSilent(false);
    if (t.trim() === "" && !p.required) {
      give(undefined);
      return;
    }
    const stop = new AbortController();
    asking.current = stop;
    p.ask(t, stop.signal)
      .then(give)
      .catch((e) => {
        if (stop.signal.aborted) return;
        if (e instanceof Refused) {
          refuse(e.message);
          return;
        }
        setSilent(true);
        setTimeout(() => !stop.signal.aborted && read(t), RETRY);
      });
  };
  const means = p.value === undefined || text === p.show(p.value) ? undefined : p.means?.(p.value);
  return (
    <Field
      label={p.label}
      error={silent ? "It is worked out as soon as the server answers; what is typed stays." : error}
      hint={p.value === undefined ? p.hint : means}
    >
      {(id) => (
        <input
          id={id}
          data-field={p.name}
          className={`input w-full ${error ? "input-error" : ""}`}
          value={text}
          placeholder={p.placeholder}
          aria-invalid={!!error}
          autoComplete="off"
          onFocus={begin}
          onChange={(e) => {
            setText(e.target.value);
            read(e.target.value);
          }}
        />
      )}
    </Field>
  );
}
