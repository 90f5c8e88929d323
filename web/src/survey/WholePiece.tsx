import { memo } from "react";
import type { Piece } from "../api/client";
import { useStudio } from "../api/studio";
import { useVocab } from "../api/vocab";
import { Check, Choice } from "../ui/Choice";
import { NumberField } from "../ui/Field";
import { TempField } from "../ui/TempField";
import { clock, temp, useUnits } from "../ui/units";
import { RoomMeter } from "./Meter";

/** A typed value is no longer a reading. */
const TYPED = { by: undefined, at: undefined, simulated: undefined };

type Props = Pick<Piece, "kind" | "use" | "made" | "site"> & { onPiece: (part: Partial<Piece>) => void };

/** WholePiece is what is known of the whole piece. */
export const WholePiece = memo(function WholePiece({ kind, use, made, site: own, onPiece }: Props) {
  const v = useVocab();
  const u = useUnits();
  const studio = useStudio()?.site;
  const site = own ?? studio;
  return (
    <section>
      <h2 className="mb-2 font-semibold text-lg">The whole piece</h2>
      <fieldset className="mb-2">
        <legend className="mb-0.5 font-medium text-secondary text-sm">Where and for whom</legend>
        <div className="flex flex-wrap gap-x-5">
          {v.uses.map((w, i) => (
            <Check
              key={w.id}
              name={i === 0 ? "use" : undefined}
              label={w.name}
              on={use?.includes(w.id) ?? false}
              onChange={(on) => {
                const rest = (use ?? []).filter((x) => x !== w.id);
                onPiece({ use: on ? [...rest, w.id] : rest });
              }}
            />
          ))}
        </div>
      </fieldset>
      <div className="grid gap-x-4 sm:grid-cols-3">
        <Choice
          label="Kind of furniture"
          name="piece.kind"
          none="Not said"
          words={v.furniture}
          value={kind ?? ""}
          hint="How fiddly it is, where its parts are not entered"
          onChange={(id) => onPiece({ kind: (id || undefined) as Piece["kind"] })}
        />
        <NumberField label="Year it was made" of="piece.made" value={made} onChange={(made) => onPiece({ made })} />
        <TempField
          label="Workshop temperature"
          units={u}
          name="site"
          value={own?.temp_c}
          hint={
            own?.by
              ? `${own.by}${own.simulated ? ", simulated" : ""}${own.at ? `, ${clock(own.at, u)}` : ""}`
              : own || !studio
                ? undefined
                : `Empty: the studio's ${temp(studio.temp_c, u)}, ${studio.rh_pct} %`
          }
          onChange={(c) => site && onPiece({ site: c === undefined ? undefined : { ...site, temp_c: c, ...TYPED } })}
        />
        <RoomMeter onSite={(site) => onPiece({ site })} />
        {own && (
          <NumberField
            label="Humidity"
            of="site.rh_pct"
            unit="%"
            value={own.rh_pct}
            required
            onChange={(h) => h !== undefined && site && onPiece({ site: { ...site, rh_pct: h, ...TYPED } })}
          />
        )}
      </div>
    </section>
  );
});
