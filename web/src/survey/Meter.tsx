import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Gauge } from "lucide-react";
import { answer, api, type Schemas, why, type Zone } from "../api/client";
import { siteOf, useInstruments } from "../frame/useInstruments";
import { ofZones } from "../piece/edit";
import { useWorkspace } from "../piece/workspace";
import { useOpen } from "../session/useSession";
import { clock, useUnits } from "../ui/units";

type Reading = Schemas["Reading"];

/** withReading puts a reading into its field, and records its source. */
export function withReading(zone: Zone, r: Reading): Zone {
  const { field, value, at, by, simulated } = r;
  const rest = (zone.readings ?? []).filter((x) => x.field !== field);
  return { ...zone, [field]: value, readings: [...rest, { field, value, at, by, simulated }] };
}

/** RoomMeter uses the air right now for the piece, with one click. */
export function RoomMeter({ onSite }: { onSite: (s: Schemas["Site"]) => void }) {
  const site = siteOf(useInstruments()?.room);
  if (!site) return null;
  return (
    <div className="mb-2 flex flex-wrap items-center gap-x-2 self-center text-sm">
      <button
        data-do="room"
        type="button"
        className="btn border-base-300 bg-base-100 font-normal"
        onClick={() => onSite(site)}
      >
        <Gauge className="size-4" aria-hidden="true" /> {site.by}
      </button>
      {site.simulated && <span className="text-secondary">simulated</span>}
    </div>
  );
}

/** Meter reads an instrument on a zone: one click, and the reading is in its field, marked with its source. */
export function Meter({ field }: { field: Reading["field"] }) {
  const u = useUnits();
  const { id, piece, zone, change } = useWorkspace();
  const open = useOpen();
  const instruments = useInstruments();
  const queries = useQueryClient();
  const x = instruments?.instruments.find((i) => i.field === field);
  const from = zone.readings?.find((r) => r.field === field && r.value === zone[field]);
  const read = useMutation({
    mutationFn: (meter: string) =>
      answer(
        api.POST("/api/instruments/{id}/read", {
          params: { path: { id: meter }, query: { zone: zone.id, piece: id } },
          body: ofZones(piece, [zone]),
        }),
      ),
    // The zone may have changed during the reading.
    onSuccess: (r) => change(withReading(open.latest().piece?.zones?.find((z) => z.id === zone.id) ?? zone, r)),
    onError: () => queries.invalidateQueries({ queryKey: ["instruments"] }),
  });
  const wrong = read.error && why(read.error, "The instrument does not answer.");
  if (!x) return null;
  return (
    <div className="mb-2 flex flex-wrap items-center gap-x-2 text-sm">
      <button
        data-meter={field}
        type="button"
        className="btn border-base-300 bg-base-100 font-normal"
        onClick={() => read.mutate(x.id)}
      >
        <Gauge className="size-4" aria-hidden="true" /> {x.name}
      </button>
      <span className="text-secondary" data-from={from ? field : undefined}>
        {from
          ? `${from.by}${from.simulated ? ", simulated" : ""}, ${clock(from.at, u)}`
          : x.simulated
            ? "simulated"
            : ""}
      </span>
      {wrong && (
        <span role="alert" className="text-error">
          {wrong}
        </span>
      )}
    </div>
  );
}
