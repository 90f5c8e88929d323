import { useRef } from "react";
import { Field } from "../ui/Field";
import { type Place, useAsked } from "./asked";

type Props = {
  label: string;
  name?: string; // the field a finding may ask for
  at: Place;
  stands: string | undefined; // spelled
  show: (spelled: string) => string;
  hint?: string; // while nothing stands there
  placeholder?: string; // what counts while nothing stands there
  required?: boolean;
};

/**
 * AskedField takes a size as people write it. The server reads it; what was typed stays as it was typed, and what it
 * comes to stands below.
 */
export function AskedField({ label, name, at, stands, show, hint, placeholder, required }: Props) {
  const [asked, sizes] = useAsked(at, stands);
  const before = useRef(stands);
  const shown = stands === undefined ? "" : show(stands);
  const text = asked ? asked.text : shown;
  const away = asked?.is === "away" && "It is worked out as soon as the server answers; what is typed stays.";
  return (
    <Field
      label={label}
      error={away || asked?.says}
      hint={stands === undefined ? hint : text === shown ? undefined : `That is ${shown}`}
    >
      {(id) => (
        <input
          id={id}
          data-field={name}
          className={`input w-full ${asked?.says ? "input-error" : ""}`}
          value={text}
          placeholder={placeholder}
          aria-invalid={!!asked?.says}
          autoComplete="off"
          onFocus={() => {
            before.current = stands;
          }}
          onChange={(e) => {
            const t = e.target.value;
            if (t.trim() === "" && !required) sizes.empty(at);
            else sizes.type(at, t, before.current);
          }}
        />
      )}
    </Field>
  );
}
