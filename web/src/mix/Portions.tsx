import type { Schemas } from "../api/client";
import { Swatch } from "../colour/Swatch";
import { unbroken } from "../ui/units";

/** Portions are what goes into a pot, large. */
export function Portions({ batch: b, big }: { batch: Schemas["Batch"]; big?: boolean }) {
  return (
    <div className="mt-2" data-portions={b.portions.length}>
      {b.pots > 1 && <p className="font-semibold text-primary">{b.pots} pots, each of</p>}
      <ul className={big ? "flex flex-wrap gap-x-14 gap-y-4" : "flex flex-wrap gap-x-8 gap-y-2"}>
        {b.portions.map((p) => (
          <li key={p.is} className="leading-tight" data-portion={p.is} data-litres={p.litres}>
            {p.parts ? (
              p.parts.map((x) => (
                <span key={`${x.name}${x.colour}`} className="flex items-center gap-2">
                  <Swatch colour={x.colour} size={26} />
                  <b className={`font-head font-semibold ${big ? "text-4xl" : "text-2xl"}`}>{unbroken(x.says)}</b>
                  <span className={big ? "text-2xl" : ""}>
                    <bdi>{x.name}</bdi>
                  </span>
                </span>
              ))
            ) : (
              <>
                <b className={`font-head font-semibold ${big ? "text-4xl sm:text-6xl" : "text-2xl"}`}>
                  {unbroken(p.says)}
                </b>
                <span className={`block ${big ? "text-2xl" : "text-secondary"}`}>{p.name}</span>
              </>
            )}
          </li>
        ))}
      </ul>
      {b.portions.length > 1 && (
        <p className={`mt-1 ${big ? "text-xl" : "text-secondary"}`}>
          {b.makes ? `Makes ${unbroken(b.makes)}${b.pots > 1 ? " each" : ""}.` : ""}
        </p>
      )}
    </div>
  );
}
