import { BellRing } from "lucide-react";
import { Link } from "react-router";
import { rings } from "./ring";
import { leftOf, useClockDo, useClocks, useTick } from "./useClocks";

/** Ringing is the clock that rings, with what it is for, until it is stopped. */
export function Ringing() {
  const q = useClocks();
  const clocks = q.data?.clocks ?? [];
  const at = q.data?.at ?? 0;
  const { silence } = useClockDo();
  useTick(1000, clocks.length > 0);
  const due = clocks.find((c) => rings(c, leftOf(c, at)));
  if (!due) return null;
  return (
    <span role="alert" className="flex min-w-0 items-center gap-2 rounded bg-warning px-2 text-warning-content">
      <BellRing className="size-5 shrink-0" aria-hidden="true" />
      <Link to="/clocks" className="truncate font-semibold underline underline-offset-2" data-rings={due.id}>
        {due.rings} {due.for}
      </Link>
      <button
        type="button"
        data-do="silence"
        className="min-h-9 shrink-0 px-2 font-semibold underline"
        onClick={() => silence.mutate(due.id)}
      >
        Stop
      </button>
    </span>
  );
}
