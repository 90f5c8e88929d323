import { Timer } from "lucide-react";
import { Link } from "react-router";
import { useAwake } from "../mix/useAwake";
import { count } from "../ui/units";
import { Dial } from "./Dial";
import { keptAwake } from "./Ringer";
import { Ringing } from "./Ringing";
import { useRing } from "./ring";
import { leftOf, spell, useClocks, useTick } from "./useClocks";

const SHOWN = 2;

/** StripClocks are the next clocks on the strip of every screen, and what rings. */
export default function StripClocks() {
  const q = useClocks();
  const clocks = q.data?.clocks ?? [];
  const at = q.data?.at ?? 0;
  const due = useRing(clocks, at);
  useTick(1000, clocks.length > 0);
  useAwake(clocks.length > 0 && keptAwake());
  const doubt = q.data?.doubt;
  const running = clocks.filter((c) => leftOf(c, at) > 0).slice(0, SHOWN);
  if (!clocks.length && !doubt) {
    // On a phone the way there is here; elsewhere it is above.
    return (
      <Link to="/clocks" className="flex min-h-9 items-center sm:hidden" aria-label="Clocks" title="Clocks">
        <Timer className="size-5" aria-hidden="true" />
      </Link>
    );
  }
  const first = due[0];
  return (
    <span className="flex min-w-0 items-center gap-x-3" data-strip-clocks={clocks.length}>
      {doubt && (
        <Link to="/clocks" className="font-semibold text-error underline" data-doubt>
          The clocks ask you something
        </Link>
      )}
      <Ringing />
      {running.map((c, i) => (
        <Link
          key={c.id}
          to="/clocks"
          data-clock={c.id}
          className={`flex min-h-9 items-center gap-1.5 whitespace-nowrap ${i || first ? "max-sm:hidden" : ""}`}
          title={[c.name, c.for, c.piece].filter(Boolean).join(", ")}
        >
          <Dial left={leftOf(c, at)} total={c.total_s} ends={c.ends} size={18} />
          <b className="font-semibold tabular-nums">{spell(leftOf(c, at))}</b>
          <span className="max-xl:sr-only">{c.name.toLowerCase()}</span>
        </Link>
      ))}
      {clocks.length > running.length + (first ? 1 : 0) && (
        <Link to="/clocks" className="whitespace-nowrap underline underline-offset-2 max-sm:sr-only">
          {count(clocks.length, "clock", "clocks")}
        </Link>
      )}
    </span>
  );
}
