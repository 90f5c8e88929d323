import { useCallback, useLayoutEffect, useRef, useState } from "react";
import type { ZoneResult } from "../api/client";
import { type Drawing, faceOf } from "../section/layout";

type Places = Map<string, number>;

type Box = { places: Places; height: number; lift: number };

/** useNarrow tells whether an element's container is narrower than a number of pixels. */
export function useNarrow(el: React.RefObject<HTMLElement | null>, than: number): boolean {
  const [narrow, setNarrow] = useState(false);
  useLayoutEffect(() => {
    const around = el.current?.parentElement;
    if (!around) return;
    const measure = () => setNarrow(around.getBoundingClientRect().width < than);
    measure();
    const o = new ResizeObserver(measure);
    o.observe(around);
    return () => o.disconnect();
  }, [el, than]);
  return narrow;
}

/**
 * useRowPlaces measures where the rows around a drawing are, and how far below their top the cross-section begins, so
 * that each can be connected to its layer. The cross-section stays visible while long rows are scrolled.
 */
function useRowPlaces(
  drawn: React.RefObject<SVGSVGElement | null>,
  cut: React.RefObject<HTMLDivElement | null>,
  shape: string, // which rows there are, and which are open
) {
  const [box, setBox] = useState<Box>({ places: new Map(), height: 420, lift: 0 });
  const measure = useCallback(() => {
    const el = drawn.current?.parentElement;
    if (!el) return;
    const r = el.getBoundingClientRect();
    const places: Places = new Map();
    for (const li of el.querySelectorAll<HTMLElement>("[data-step]")) {
      const head = li.querySelector<HTMLElement>("[data-head]")?.getBoundingClientRect();
      if (head) places.set(li.dataset.step ?? "", Math.round(head.top - r.top + head.height / 2));
    }
    const height = Math.round(r.height);
    const lift = Math.round((cut.current?.getBoundingClientRect().top ?? r.top) - r.top);
    setBox((b) =>
      b.height === height &&
      b.lift === lift &&
      b.places.size === places.size &&
      [...places].every(([k, y]) => b.places.get(k) === y)
        ? b
        : { places, height, lift },
    );
  }, [drawn, cut]);
  // Measured when there are other rows, and when one grows: measuring at every drawing would lay the page out twice.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the shape decides which rows there are
  useLayoutEffect(() => {
    const el = drawn.current?.parentElement;
    if (!el) return;
    measure();
    const o = new ResizeObserver(measure);
    o.observe(el);
    for (const head of el.querySelectorAll("[data-head]")) o.observe(head);
    if (cut.current) o.observe(cut.current);
    // The cross-section is at the lower end of the scrolling area, and moves with it.
    const scrolls = el.closest("section");
    if (scrolls) o.observe(scrolls);
    let frame = 0;
    const onScroll = () => {
      cancelAnimationFrame(frame);
      frame = requestAnimationFrame(measure);
    };
    document.addEventListener("scroll", onScroll, { capture: true, passive: true });
    window.addEventListener("resize", onScroll);
    return () => {
      o.disconnect();
      cancelAnimationFrame(frame);
      document.removeEventListener("scroll", onScroll, { capture: true });
      window.removeEventListener("resize", onScroll);
    };
  }, [drawn, cut, measure, shape]);
  return box;
}

type LeaderProps = {
  section: NonNullable<ZoneResult["section"]>;
  drawing: Drawing;
  chosen: number | undefined;
  cut: React.RefObject<HTMLDivElement | null>;
  shape: string; // which rows there are, and which are open
};

const TIE = 44;

/** Leaders connect each row to its layer, or to the face it works on. */
export function Leaders({ section, drawing, chosen, cut, shape }: LeaderProps) {
  const drawn = useRef<SVGSVGElement>(null);
  const { places, height, lift } = useRowPlaces(drawn, cut, shape);
  const lines = [...places].flatMap(([step, y]) => {
    const n = Number(step);
    let from = Number.isNaN(n) ? undefined : faceOf(section, drawing, n);
    if (step === "substrate" && drawing.bands[0]) from = drawing.bands[0].bottom - 16;
    if (step === "finish") {
      const b = drawing.bands.find((x) => x.l.kind === "finish");
      from = b ? (b.top + b.bottom) / 2 : drawing.bands[0]?.top;
    }
    return from === undefined ? [] : [{ step, n, y, from: from + lift }];
  });
  return (
    <svg
      ref={drawn}
      className="pointer-events-none absolute top-0 right-full w-6 overflow-visible text-secondary sm:w-11"
      height={height}
      viewBox={`0 0 ${TIE} ${height}`}
      preserveAspectRatio="none"
      aria-hidden="true"
    >
      {lines.map((l) => {
        const on = l.n === chosen;
        return (
          <g key={l.step} className={on ? "text-primary" : ""} stroke="currentColor" fill="none">
            <path
              d={`M0 ${l.from}C${TIE * 0.5} ${l.from} ${TIE * 0.5} ${l.y} ${TIE - 2} ${l.y}`}
              strokeWidth={on ? 2.4 : 1.2}
              strokeOpacity={on ? 1 : 0.6}
            />
            <circle cx="1" cy={l.from} r={on ? 3 : 2} fill="currentColor" stroke="none" />
          </g>
        );
      })}
    </svg>
  );
}
