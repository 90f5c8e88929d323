import { AlarmClockCheck } from "lucide-react";
import { Link, useLocation } from "react-router";
import { useTick } from "../clocks/useClocks";
import { useUnits } from "../ui/units";
import { useOtherTabs } from "../work/useLog";
import { timeSays } from "./timeSays";
import { nowOf, useToday } from "./useToday";

/** StripDue is the most urgent thing on any piece, on the strip of every screen. */
export default function StripDue() {
  const u = useUnits();
  const { pathname } = useLocation();
  const t = useToday().data;
  useOtherTabs();
  useTick(10_000, !!t);
  const x = t?.items.find((i) => i.due.state !== "not_begun" && i.due.state !== "hardening");
  if (!t || !x || pathname === "/today") return null;
  const time = timeSays(x.due, nowOf(t), u);
  const tone = x.due.state === "closing" || x.due.state === "missed" ? "font-semibold" : "";
  return (
    <Link
      to="/today"
      data-strip-due={x.due.state}
      className={`flex min-h-9 min-w-0 max-w-full items-center gap-1.5 ${tone}`}
      title={`${x.piece}, ${x.zone}: ${x.due.title ?? ""}. ${x.due.says} ${time}`}
    >
      <AlarmClockCheck className="size-4 shrink-0" aria-hidden="true" />
      <span className="truncate">
        <bdi>{x.piece}</bdi>: {x.due.title?.toLowerCase()}
        {time && <span className="max-sm:hidden">, {time}</span>}
      </span>
    </Link>
  );
}
