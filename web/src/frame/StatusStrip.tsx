import { ArrowRight, Gauge, Hourglass, Thermometer } from "lucide-react";
import { lazy, memo, type ReactNode, Suspense, useState } from "react";
import type { Schemas } from "../api/client";
import { temp, useUnits } from "../ui/units";
import { useInstruments } from "./useInstruments";

// Opened now and then, or drawn after the rest: the first load is without them.
const InstrumentsSheet = lazy(() => import("./InstrumentsSheet"));
const StripClocks = lazy(() => import("../clocks/StripClocks"));
const StripDue = lazy(() => import("../today/StripDue"));

type Props = {
  air: Schemas["Air"] | undefined; // that plans are checked with
  windows?: ReactNode; // the longest wait of the plan
  next?: ReactNode; // the next thing to do
  onAir?: (site: Schemas["Site"]) => void;
  onSpot?: (r: Schemas["SpotRead"]) => void;
};

/**
 * StatusStrip is along the bottom of every screen: the air now, the air for checks, the longest wait, the next thing
 * to do.
 */
export function StatusStrip({ air, windows, next, onAir, onSpot }: Props) {
  const u = useUnits();
  const [open, setOpen] = useState(false);
  return (
    <footer className="group board no-print sticky bottom-0 z-10 flex min-h-11 flex-wrap items-center gap-x-5 gap-y-0.5 px-3 py-1 text-sm sm:px-5">
      <Instruments open={setOpen} />
      <span className="flex items-center gap-1.5 whitespace-nowrap max-sm:hidden" title="Air used for checking plans">
        <Thermometer className="size-4" aria-hidden="true" />
        {air ? (
          <span className="tabular-nums">
            Plans use {temp(air.temp_c, u)}, {air.rh_pct} %
          </span>
        ) : (
          "air not known"
        )}
      </span>
      <span className="flex min-h-9 min-w-0 flex-1 items-center gap-1.5">
        {windows && (
          <span className="flex min-w-0 items-center gap-1.5 max-lg:hidden max-2xl:group-has-[[data-strip-clocks]]:hidden group-has-[[data-strip-due]]:hidden">
            <Hourglass className="size-4 shrink-0" aria-hidden="true" />
            <span className="truncate">{windows}</span>
          </span>
        )}
        <Suspense>
          <StripDue />
        </Suspense>
      </span>
      <Suspense>
        <StripClocks />
      </Suspense>
      {next && (
        <span className="flex min-w-0 max-w-full items-center gap-1.5 lg:max-w-[40%]">
          <ArrowRight className="size-4 shrink-0" aria-hidden="true" />
          <span className="truncate">
            <b className="font-semibold">Next:</b> {next}
          </span>
        </span>
      )}
      <Suspense>{open && <InstrumentsSheet onClose={() => setOpen(false)} onAir={onAir} onSpot={onSpot} />}</Suspense>
    </footer>
  );
}

/** Instruments shows their readings, and opens them. It is drawn when they read, and not with every edit. */
const Instruments = memo(function Instruments({ open }: { open: (o: boolean) => void }) {
  const u = useUnits();
  const now = useInstruments()?.room;
  return (
    <button
      data-do="instruments"
      type="button"
      className="flex min-h-9 items-center gap-1.5 whitespace-nowrap rounded px-1 hover:bg-base-100/40"
      title="Instruments"
      onClick={() => open(true)}
    >
      <Gauge className="size-4" aria-hidden="true" />
      <span className="sr-only">Instruments.</span>
      {now?.temp_c !== undefined ? (
        <>
          Now <b className="font-semibold tabular-nums">{temp(now.temp_c, u)}</b>
          <span className="tabular-nums">{now.rh_pct} %</span>
          {now.dew_point_c !== undefined && (
            <span className="tabular-nums max-sm:hidden">dew point {temp(now.dew_point_c, u)}</span>
          )}
          {now.surface_c !== undefined && (
            <span className="tabular-nums max-2xl:hidden">surface {temp(now.surface_c, u)}</span>
          )}
          {now.simulated && <i className="text-secondary">simulated</i>}
          {now.says && <span className="font-semibold text-error">near the dew point</span>}
        </>
      ) : (
        "No sensor"
      )}
    </button>
  );
});
