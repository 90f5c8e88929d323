import type { Finding } from "../api/client";

/** Figures are the numbers behind a verdict or finding, each with its meaning. */
export function Figures({ factors }: { factors: Finding["factors"] }) {
  return (
    <table className="mt-1 w-full text-sm">
      <tbody>
        {factors.map((x) => (
          <tr key={x.id} className="border-base-300 border-t align-top">
            <td className="w-16 py-0.5 pr-2 text-right font-semibold tabular-nums">{x.shown}</td>
            <td className="py-0.5">{x.words}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
