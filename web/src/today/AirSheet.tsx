import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas, why } from "../api/client";
import { useVocabQuery, VocabContext } from "../api/vocab";
import { Dialog } from "../ui/Dialog";
import { NumberField } from "../ui/Field";
import { TempField } from "../ui/TempField";
import { useUnits } from "../ui/units";
import { logChanged } from "../work/useLog";
import { TODAY_KEY, took } from "./useToday";

/** AirSheet takes the air as the painter reads it: what dries goes by it from then on. */
export function AirSheet({ read, onClose }: { read: Schemas["Air"]; onClose: () => void }) {
  const u = useUnits();
  const queries = useQueryClient();
  const v = useVocabQuery();
  const [t, setT] = useState<number | undefined>(read.temp_c);
  const [rh, setRH] = useState<number | undefined>(Math.round(read.rh_pct));
  const save = useMutation({
    mutationFn: () => answer(api.POST("/api/air", { body: { temp_c: t ?? read.temp_c, rh_pct: rh ?? read.rh_pct } })),
    onSuccess: (today) => {
      queries.setQueryData(TODAY_KEY, took(today));
      logChanged(queries);
      onClose();
    },
  });
  if (!v.data) return null;
  return (
    <Dialog title="The air now" onClose={onClose}>
      <VocabContext value={v.data}>
        <form
          onSubmit={(e) => {
            e.preventDefault();
            save.mutate();
          }}
        >
          <p className="mb-2">Drying, and every window, go by what you read until you say otherwise, for half a day.</p>
          <div className="grid grid-cols-2 gap-3">
            <TempField label="Temperature" name="air-temp" units={u} value={t} onChange={setT} />
            <NumberField label="Humidity" name="air-rh" unit="%" min={0} max={100} value={rh} onChange={setRH} />
          </div>
          {save.isError && (
            <p role="alert" className="mt-2 font-medium text-error">
              {why(save.error)}
            </p>
          )}
          <button type="submit" data-do="save-air" className="btn btn-primary mt-3 h-14 w-full text-lg">
            That is the air now
          </button>
        </form>
      </VocabContext>
    </Dialog>
  );
}
