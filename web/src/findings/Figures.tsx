import type { Finding } from "../api/client";

/** Figures are the numbers behind something said, each with what it means. */
export function Figures({ factors }: { factors: Finding["factors"] }) {
  return (
    <table className="mt-1 w-full text-sm">
      <tbody>
        {factors.map((x) => (
          <tr key={x.id} className="border-base-300 border-t align-top">
            <td className="w-16 py-0.5 pr-2 text-right font-semibold tabular-nums">{figure(x)}</td>
            <td className="py-0.5">{x.words}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

// Figures that are read off something are shown as they were read.
const MEASURED = ["level", "moisture", "watch_from", "fail_from", "air", "limit"];

function figure(x: { id: string; value: number }) {
  if (x.id === "risk" || x.id === "belief") return `${Math.round(x.value * 100)} %`;
  if (x.id === "known") return x.value ? `${Math.round(x.value * 100)} %` : "–";
  if (x.id.startsWith("step_")) return `${Math.round(x.value)} min`;
  if (MEASURED.includes(x.id)) return String(Number(x.value.toFixed(1)));
  return x.value.toFixed(x.id === "delta_e" || x.id === "load" || x.id.startsWith("day_") ? 1 : 2);
}
