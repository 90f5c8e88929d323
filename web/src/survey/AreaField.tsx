import { useCallback, useEffect, useRef, useState } from "react";
import { answer, api, Refused } from "../api/client";
import { Field, useTyped } from "../ui/Field";
import { area, useUnits } from "../ui/units";

type Props = { value: number | undefined; onChange: (m2: number | undefined) => void };

const RETRY = 3000; // ms

/**
 * AreaField takes an area as people write it: 120 x 45 cm, 4 ft 2 in by 18, 0.6. The server reads it; what was typed
 * stays as it was typed, and what it comes to stands below.
 */
export function AreaField({ value, onChange }: Props) {
  const u = useUnits();
  const show = useCallback((m2: number | undefined) => (m2 === undefined ? "" : area(m2, u)), [u]);
  const { text, setText, error, give, refuse, begin } = useTyped(value, show, onChange);
  const [silent, setSilent] = useState(false);
  const asking = useRef<AbortController>(undefined);
  useEffect(() => () => asking.current?.abort(), []);
  const read = (t: string) => {
    asking.current?.abort();
    setSilent(false);
    if (t.trim() === "") {
      give(undefined);
      return;
    }
    const stop = new AbortController();
    asking.current = stop;
    answer(api.GET("/api/area", { params: { query: { text: t } }, signal: stop.signal }))
      .then((a) => give(a.area_m2))
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
  const means = value === undefined || text === show(value) ? undefined : `That is ${area(value, u)}`;
  const how = u === "us" ? "As 48 x 18, 4'2\" x 18 in, or 6 sq ft" : "As 120 x 45 cm, 3 x 80 x 18, or 0.6 m²";
  return (
    <Field
      label="Area"
      error={silent ? "It is worked out as soon as the server answers; what is typed stays." : error}
      hint={value === undefined ? how : means}
    >
      {(id) => (
        <input
          id={id}
          data-field="area_m2"
          className={`input w-full ${error ? "input-error" : ""}`}
          value={text}
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
