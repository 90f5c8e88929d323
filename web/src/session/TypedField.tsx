import { useRef } from "react";
import { Field } from "../ui/Field";
import { useName } from "../ui/focus";
import type { Place } from "./typed";
import { useOpen, useTypedSize } from "./useSession";

type Props = {
  label: string;
  name?: string; // the field an answer may ask for
  at: Place;
  stands: string | undefined; // serialized
  show: (spelled: string) => string;
  hint?: string; // while it is empty
  placeholder?: string; // what counts while it is empty
  required?: boolean;
};

/**
 * TypedField takes a size as people write it. The server reads it; the text stays as typed, and the result is shown
 * below.
 */
export function TypedField({ label, name, at, stands, show, hint, placeholder, required }: Props) {
  const open = useOpen();
  const typed = useTypedSize(at, stands);
  const before = useRef(stands);
  const ref = useName<HTMLInputElement>(name && `field ${name}`);
  const shown = stands === undefined ? "" : show(stands);
  const text = typed ? typed.text : shown;
  const away = typed?.is === "away" && "This is calculated as soon as the server answers; your text is kept.";
  return (
    <Field
      label={label}
      error={away || typed?.says}
      hint={stands === undefined ? hint : text === shown ? undefined : `= ${shown}`}
    >
      {(id) => (
        <input
          ref={ref}
          id={id}
          data-field={name ?? "sizes"}
          data-typed={typed?.is}
          className={`input w-full ${typed?.says ? "input-error" : ""}`}
          value={text}
          placeholder={placeholder}
          aria-invalid={!!typed?.says}
          autoComplete="off"
          onFocus={() => {
            before.current = stands;
          }}
          onChange={(e) => {
            const t = e.target.value;
            if (t.trim() === "" && !required) open.dispatch({ type: "emptied", place: at, at: Date.now() });
            else open.dispatch({ type: "typed", place: at, text: t, before: before.current });
          }}
        />
      )}
    </Field>
  );
}
