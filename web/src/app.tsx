import { Link, Outlet } from "react-router";
import { useStudio } from "./api/studio";

/** Frame is what stands around every screen: the name above, the workshop below. */
export function Frame() {
  const studio = useStudio();
  return (
    <div className="flex min-h-dvh flex-col">
      <header className="flex items-center gap-3 border-base-300 border-b px-5 py-2">
        <Link to="/" className="flex items-center gap-2 font-head font-semibold text-primary text-xl">
          <img src="/rutile.svg" alt="" className="size-7" />
          Rutile
        </Link>
        <span className="hidden text-secondary text-sm md:inline">
          the bench book that checks the plan before the first coat
        </span>
        <span className="flex-1" />
        {studio?.demo && (
          <span className="text-secondary text-sm">
            Lantern Yard<span className="hidden md:inline">, demo studio: thrown away when the server stops</span>
          </span>
        )}
      </header>
      <main className="flex flex-1 flex-col">
        <Outlet />
      </main>
      <footer className="border-base-300 border-t px-5 py-1.5 text-secondary text-xs">
        Every figure is an estimate. Labels, safety data sheets, local codes and licensed people decide.
        {studio && (
          <span>
            {" "}
            Workshop as set: {studio.site.temp_c} °C, {studio.site.rh_pct} % humidity.
          </span>
        )}
      </footer>
    </div>
  );
}
