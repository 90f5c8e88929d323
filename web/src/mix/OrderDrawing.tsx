import { useId } from "react";
import type { Overview, Piece } from "../api/client";
import type { Turn } from "./useCards";

type Props = {
  order: Turn[];
  overview: Overview;
  piece: Pick<Piece, "parts" | "zones">;
  width: number;
  height: number;
  now?: number; // the number that is painted now
  across?: boolean; // strokes run across the usual way
};

const MARGIN = 6; // px
const ARROW = 13; // px, half its length

/** OrderDrawing is the front view of the piece with the order in which it is painted, and the way of the strokes. */
export function OrderDrawing({ order, overview, width, height, now, across }: Props) {
  const id = useId().replaceAll(":", "");
  const { w_cm: w, h_cm: h, shapes } = overview.elevation;
  if (!shapes.length) return null;
  const k = Math.min((width - 2 * MARGIN) / w, (height - 2 * MARGIN) / h);
  const size = { w: w * k + 2 * MARGIN, h: h * k + 2 * MARGIN };
  const mine = new Set(order.map((t) => t.part));
  return (
    <svg
      viewBox={`${-MARGIN} ${-MARGIN} ${size.w} ${size.h}`}
      width={size.w}
      height={size.h}
      className="block h-auto max-w-full print:max-h-72 print:w-auto"
      role="img"
      aria-label={`Front view with the order of painting: ${order.map((t) => `${t.n} ${t.says}`).join("; ")}`}
      data-order={order.length}
    >
      <defs>
        <marker id={`${id}a`} viewBox="0 0 8 8" refX="6" refY="4" markerWidth="6" markerHeight="6" orient="auto">
          <path d="M0 0L8 4L0 8Z" fill="#7d2f1c" />
        </marker>
      </defs>
      <g transform={`scale(${k})`}>
        {shapes.map((s) => (
          <g key={`${s.part}-${s.n}`}>
            <path
              d={s.d}
              fillRule="evenodd"
              fill={mine.has(s.part) ? "#f6eede" : "#d9d2c4"}
              stroke="#2b2620"
              strokeOpacity="0.7"
              vectorEffect="non-scaling-stroke"
            />
            {s.lines && (
              <path d={s.lines} fill="none" stroke="#2b2620" strokeOpacity="0.35" vectorEffect="non-scaling-stroke" />
            )}
          </g>
        ))}
        {order.flatMap((t) =>
          t.marks.map((m) => (
            <path
              key={`${t.n}-${m.n}-${m.d}`}
              d={m.d}
              fillRule="evenodd"
              fill={now === t.n ? "#c9862b" : now !== undefined && t.n < now ? "#b9c7b3" : "transparent"}
              fillOpacity="0.7"
              stroke="#7d2f1c"
              strokeOpacity="0.5"
              strokeDasharray="3 3"
              vectorEffect="non-scaling-stroke"
            />
          )),
        )}
      </g>
      {order.flatMap((t) =>
        t.marks.map((m, i) => {
          const [x, y] = [m.x * k, m.y * k];
          // Rails and stiles show twice: the number stands on one of them.
          const first = t.marks.findIndex((o) => o.n === m.n) === i;
          const band = m.d.indexOf("M", 1) > 0; // strokes follow it round
          const up = (t.run === "upright") !== (across && t.run !== "around");
          return (
            <g key={`${t.n}-${m.n}-${m.d}`} data-turn={t.n}>
              {t.run !== "around" && !band && (
                <path
                  d={up ? `M${x + 11} ${y + ARROW}V${y - ARROW}` : `M${x - ARROW} ${y + 11}H${x + ARROW}`}
                  stroke="#7d2f1c"
                  strokeWidth="1.500"
                  markerEnd={`url(#${id}a)`}
                />
              )}
              {t.run === "around" &&
                [-8, 0, 8].map((dy) => <circle key={dy} cx={x + 11} cy={y + dy} r="1.800" fill="#7d2f1c" />)}
              {first && (
                <>
                  <circle cx={x} cy={y} r="8.500" fill={now === t.n ? "#7d2f1c" : "#fbf8f2"} stroke="#7d2f1c" />
                  <text
                    x={x}
                    y={y + 3.8}
                    textAnchor="middle"
                    fontSize="11"
                    fontWeight="600"
                    fill={now === t.n ? "#fbf8f2" : "#2b2620"}
                  >
                    {t.n}
                  </text>
                </>
              )}
            </g>
          );
        }),
      )}
    </svg>
  );
}
