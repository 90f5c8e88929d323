import { ArrowRight, Hourglass, Thermometer } from "lucide-react";
import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { temp, useUnits } from "../ui/units";

type Props = {
  air: Schemas["Air"] | undefined;
  windows?: ReactNode; // what opens and closes when
  next?: ReactNode; // the next thing to do
};

/** BenchStrip lies along the bottom of every screen: the air, what is open or closing, and what is next. */
export function BenchStrip({ air, windows, next }: Props) {
  const u = useUnits();
  return (
    <footer className="board no-print sticky bottom-0 z-10 flex min-h-11 flex-wrap items-center gap-x-6 gap-y-0.5 px-3 py-1.5 text-sm sm:px-5">
      <span className="flex items-center gap-1.5 whitespace-nowrap">
        <Thermometer className="size-4" aria-hidden="true" />
        {air ? (
          <>
            <b className="font-semibold tabular-nums">{temp(air.temp_c, u)}</b>
            <span className="tabular-nums">{air.rh_pct} % humidity</span>
            <span className="tabular-nums max-sm:hidden">dew point {temp(air.dew_point_c, u)}</span>
          </>
        ) : (
          "the air is not known"
        )}
      </span>
      <span className="flex min-w-0 items-center gap-1.5 max-lg:hidden">
        <Hourglass className="size-4 shrink-0" aria-hidden="true" />
        <span className="truncate">{windows ?? "No coat is drying."}</span>
      </span>
      <span className="flex-1" />
      {next && (
        <span className="flex min-w-0 max-w-full items-center gap-1.5">
          <ArrowRight className="size-4 shrink-0" aria-hidden="true" />
          <span className="truncate">
            <b className="font-semibold">Next:</b> {next}
          </span>
        </span>
      )}
    </footer>
  );
}
