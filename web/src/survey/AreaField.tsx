import { useCallback } from "react";
import { answer, api, type ZoneLook } from "../api/client";
import { AskedField } from "../ui/AskedField";
import { area, useUnits } from "../ui/units";

type Props = {
  value: number | undefined;
  look: ZoneLook | undefined; // what its parts come to
  onChange: (m2: number | undefined) => void;
};

const ask = (text: string, signal: AbortSignal) =>
  answer(api.GET("/api/area", { params: { query: { text } }, signal })).then((a) => a.area_m2);

/** AreaField takes an area as people write it: 120 x 45 cm, 4 ft 2 in by 18, 0.6. Empty, it is what the parts come to. */
export function AreaField({ value, look, onChange }: Props) {
  const u = useUnits();
  const show = useCallback((m2: number | undefined) => (m2 === undefined ? "" : area(m2, u)), [u]);
  const how = u === "us" ? "As 48 x 18, 4'2\" x 18 in, or 6 sq ft" : "As 120 x 45 cm, 3 x 80 x 18, or 0.6 m²";
  const parts = look?.parts ? `From its parts: ${area(look.parts_m2, u)}` : undefined;
  return (
    <div>
      <AskedField
        label="Area"
        name="area_m2"
        value={value}
        show={show}
        ask={ask}
        placeholder={look?.parts ? area(look.parts_m2, u) : undefined}
        means={(m2) => `That is ${area(m2, u)}`}
        hint={parts ? `${parts}; type to overrule it` : how}
        onChange={onChange}
      />
      {value !== undefined && parts && (
        <button type="button" className="link link-primary -mt-1 mb-2 text-sm" onClick={() => onChange(undefined)}>
          {parts}. Take that
        </button>
      )}
    </div>
  );
}
