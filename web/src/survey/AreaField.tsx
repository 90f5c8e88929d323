import { useEffect, useRef, useState } from "react";
import { answer, api, Refused } from "../api/client";
import { Field } from "../ui/Field";
import { area, useUnits } from "../ui/units";

type Props = { value: number | undefined; onChange: (m2: number | undefined) => void };

/**
 * AreaField takes an area as people write it: 120 x 45 cm, 4 ft 2 in by 18, 0.6. The server reads it; what was typed
 * stays as it was typed, and what it comes to stands below.
 */
export function AreaField({ value, onChange }: Props) {
  const u = useUnits();
  const [text, setText] = useState(value === undefined ? "" : area(value, u));
  const [error, setError] = useState<string>();
  const given = useRef(value);
  const asking = useRef<AbortController>(undefined);
  useEffect(() => {
    if (value !== given.current) {
      given.current = value;
      setText(value === undefined ? "" : area(value, u));
      setError(undefined);
    }
  }, [value, u]);
  useEffect(() => () => asking.current?.abort(), []);
  const give = (m2: number | undefined) => {
    given.current = m2;
    setError(undefined);
    onChange(m2);
  };
  const read = (t: string) => {
    asking.current?.abort();
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
          setError(e.message);
          return;
        }
        setError("It is worked out as soon as the server answers; what is typed stays.");
        setTimeout(() => !stop.signal.aborted && read(t), 3000);
      });
  };
  return (
    <Field
      label="Area"
      error={error}
      hint={
        value === undefined
          ? u === "us"
            ? "As 48 x 18, 4'2\" x 18 in, or 6 sq ft"
            : "As 120 x 45 cm, 3 x 80 x 18, or 0.6 m²"
          : text === area(value, u)
            ? undefined
            : `That is ${area(value, u)}`
      }
    >
      {(id) => (
        <input
          id={id}
          data-field="area_m2"
          className={`input h-11 w-full ${error ? "input-error" : ""}`}
          value={text}
          aria-invalid={!!error}
          autoComplete="off"
          onChange={(e) => {
            setText(e.target.value);
            read(e.target.value);
          }}
        />
      )}
    </Field>
  );
}
