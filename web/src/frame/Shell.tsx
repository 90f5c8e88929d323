import {
  BookOpen,
  CalendarCheck,
  CloudOff,
  Keyboard,
  Moon,
  PaintBucket,
  Paintbrush,
  Settings2,
  Smartphone,
  Sun,
  Timer,
} from "lucide-react";
import { lazy, memo, type ReactNode, Suspense, useState } from "react";
import { Link, useNavigate } from "react-router";
import { useReach } from "../api/reach";
import { useStudio } from "../api/studio";
import { useName } from "../ui/focus";
import { useUnits, when } from "../ui/units";
import { ANYWHERE, useKeys } from "./keys";
import { turnTheme, useTheme } from "./theme";

// Opened now and then: the first load is without them.
const KeysSheet = lazy(() => import("./KeysSheet"));
const StudioSheet = lazy(() => import("./StudioSheet"));

type Props = {
  head?: ReactNode; // the title of the screen, beside the name
  strip: ReactNode; // the status strip
  fixed?: boolean; // the screen scrolls in its own parts where there is room
  children: ReactNode;
};

/** Shell is the frame of every screen: the header above, the status strip below. */
export function Shell({ head, strip, fixed, children }: Props) {
  const studio = useStudio();
  const { kept } = useReach();
  const u = useUnits();
  const go = useNavigate();
  const [open, setOpen] = useState<Sheet>();
  const work = useName<HTMLElement>("work");
  useKeys(ANYWHERE, [
    { key: "?", says: "Show the shortcuts", run: () => setOpen("keys") },
    { key: "t", says: "Light or dark theme", run: turnTheme },
    { key: "y", says: "Today: what comes next on all pieces", run: () => void go("/today") },
  ]);
  return (
    <div
      className={`flex min-h-dvh flex-col ${fixed ? "lg:h-dvh lg:overflow-hidden print:h-auto print:overflow-visible" : ""}`}
    >
      <a
        href="#work"
        className="absolute -top-20 left-4 z-20 rounded bg-primary px-3 py-2 text-primary-content focus:top-2"
      >
        Skip to the content
      </a>
      <header className="no-print flex min-h-14 items-center sm:flex-wrap gap-x-3 gap-y-1 border-base-300 border-b px-3 py-1 sm:px-5">
        <Link
          to="/"
          className="flex min-h-11 items-center gap-2 font-head font-semibold text-primary text-xl"
          aria-label={head ? "Rutile: all pieces" : "Rutile"}
        >
          <img src="/rutile.svg" alt="" width="28" height="28" className="size-7" />
          <span className={head ? "max-lg:sr-only" : "max-sm:sr-only"}>Rutile</span>
        </Link>
        <div className="flex min-w-0 flex-1 items-center gap-3 max-sm:flex-wrap max-sm:gap-x-1 max-sm:gap-y-0">
          {head ?? (
            <span className="text-secondary text-sm max-2xl:sr-only">
              checks a furniture painter's plan before the first coat
            </span>
          )}
        </div>
        <Tools headed={!!head} open={setOpen} />
      </header>
      {studio?.read_only && (
        <p
          role="status"
          data-read-only
          className="no-print bg-warning px-3 py-1 font-medium text-warning-content sm:px-5"
        >
          Opened to be read only: what you change here is not saved.
        </p>
      )}
      {kept !== undefined && (
        <p
          role="status"
          data-out-of-reach
          className="no-print flex items-center gap-2 bg-base-200 px-3 py-1 font-medium sm:px-5"
        >
          <CloudOff className="size-5 shrink-0" aria-hidden="true" />
          Out of reach of the computer. You see what this device took along at{" "}
          {when(new Date(kept).toISOString(), Date.now(), u)}; new verdicts wait for the computer.
        </p>
      )}
      <main ref={work} id="work" tabIndex={-1} className="flex min-h-0 flex-1 flex-col outline-none">
        {children}
      </main>
      {strip}
      <Suspense>
        {open === "keys" && <KeysSheet onClose={() => setOpen(undefined)} />}
        {open === "studio" && studio && <StudioSheet studio={studio} onClose={() => setOpen(undefined)} />}
      </Suspense>
    </div>
  );
}

type Sheet = "keys" | "studio";

const PLACES = [
  ["today", "Today", CalendarCheck],
  ["clocks", "Clocks", Timer],
  ["shelf", "Shelf", PaintBucket],
  ["kit", "Kit and habits", Paintbrush],
  ["rules", "Rule book", BookOpen],
] as const;

const DEVICES = ["devices", "Devices", Smartphone] as const; // on the computer
const PHONE = ["phone", "This device", Smartphone] as const; // on one of them

/** Tools are on every screen. They are drawn once, and not with every edit. */
const Tools = memo(function Tools({ headed, open }: { headed: boolean; open: (sheet: Sheet) => void }) {
  const studio = useStudio();
  const theme = useTheme();
  const places = [...PLACES, studio?.device ? PHONE : DEVICES];
  return (
    <div className="flex items-center">
      {places.map(([id, says, Icon]) => (
        <Link
          key={id}
          data-do={id}
          to={`/${id}`}
          className={`btn btn-ghost px-2.5 max-sm:px-1.5 ${headed ? "max-sm:hidden" : ""}`}
          title={says}
        >
          <Icon className="size-5" aria-hidden="true" />
          <span className={headed ? "sr-only" : "font-normal max-lg:sr-only"}>{says}</span>
        </Link>
      ))}
      <button
        data-do="studio"
        type="button"
        className={`btn btn-ghost px-2.5 ${headed ? "max-sm:hidden" : ""}`}
        onClick={() => open("studio")}
      >
        <Settings2 className="size-5" aria-hidden="true" />
        <span className="max-w-40 truncate font-normal max-xl:sr-only">
          <bdi>{studio?.name || "Studio"}</bdi>
        </span>
      </button>
      <button
        data-do="theme"
        type="button"
        className="btn btn-ghost btn-square"
        aria-label={theme === "dark" ? "Light theme" : "Dark theme"}
        title={theme === "dark" ? "Light theme" : "Dark theme"}
        onClick={turnTheme}
      >
        {theme === "dark" ? (
          <Sun className="size-5" aria-hidden="true" />
        ) : (
          <Moon className="size-5" aria-hidden="true" />
        )}
      </button>
      <button
        data-do="keys"
        type="button"
        className="btn btn-ghost btn-square max-sm:hidden"
        aria-label="Shortcuts"
        title="Shortcuts: ?"
        onClick={() => open("keys")}
      >
        <Keyboard className="size-5" aria-hidden="true" />
      </button>
    </div>
  );
});
