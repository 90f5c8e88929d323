import { Printer } from "lucide-react";
import { useStudio } from "../api/studio";
import { nameOf, soilsSay, stepName, useVocab } from "../api/vocab";
import { useKeys } from "../frame/keys";
import { ZonePlace } from "../overview/ZonePlace";
import { Estimate } from "../piece/Estimate";
import { zoneTitle } from "../piece/edit";
import { useWorkspace } from "../piece/workspace";
import { Cut } from "../section/Cut";
import { layCut } from "../section/layout";
import { Mark } from "../ui/Mark";
import { temp, useUnits } from "../ui/units";

/** JobSheet is a zone's plan for printing: steps to tick, waits, cautions. */
export default function JobSheet() {
  const { piece, zone, judged, overview, go } = useWorkspace();
  const v = useVocab();
  const u = useUnits();
  const studio = useStudio();
  const steps = zone.steps ?? [];
  useKeys("Job sheet", [{ key: "p", says: "Print", run: () => window.print() }]);
  if (!steps.length) {
    return (
      <div className="p-6">
        <p className="mb-3">There is no plan to print yet.</p>
        <button type="button" className="btn btn-primary" onClick={() => go("plan")}>
          Plan the coats
        </button>
      </div>
    );
  }
  const said = judged?.findings.filter((f) => f.severity !== "note") ?? [];
  const cautions = judged?.findings.filter((f) => f.severity === "note") ?? [];
  const says = judged?.section?.steps ?? [];
  const d = judged?.section && layCut(judged.section, 190, 380);
  const site = piece.site ?? studio?.site;
  const own = overview?.zones.find((z) => z.id === zone.id);
  const off = (piece.take_apart ?? []).flatMap((f, i) => {
    const l = overview?.fittings[i];
    return l && l.do !== "stay" ? [{ n: i, f, l }] : [];
  });
  const damage = (zone.defects ?? []).filter((x) => x.id !== "knot");
  return (
    <div className="min-h-0 flex-1 overflow-y-auto print:overflow-visible">
      <article className="mx-auto max-w-4xl px-4 py-5 print:max-w-none print:p-0" aria-label="Job sheet">
        <div className="flex flex-wrap items-start gap-3 border-base-content border-b-2 pb-2">
          <div className="min-w-0 flex-1">
            <p className="text-secondary text-sm">
              <bdi>{studio?.name}</bdi> · job sheet
            </p>
            <h2 className="font-semibold text-2xl leading-tight">
              <bdi className="break-words">{piece.name}</bdi>: <bdi className="break-words">{zoneTitle(zone)}</bdi>
            </h2>
            <p>
              {nameOf(v.substrates, zone.substrate)},{" "}
              {zone.finish === "none" ? "bare" : `${nameOf(v.finishes, zone.finish ?? "unknown").toLowerCase()}`}
              {zone.gloss && `, ${nameOf(v.gloss, zone.gloss)}`}
              {own?.area ? `, ${own.area}` : ""}. {zone.soils?.length ? `Dirt: ${soilsSay(v, zone.soils)}. ` : ""}
              {site && `Workshop ${temp(site.temp_c, u)}, ${site.rh_pct} % humidity.`}
            </p>
          </div>
          <ZonePlace piece={piece} overview={overview} zone={zone.id} width={130} height={100} />
          <button type="button" className="btn btn-primary no-print" onClick={() => window.print()}>
            <Printer className="size-5" aria-hidden="true" /> Print
          </button>
        </div>
        {judged && (
          <p className="my-2 flex flex-wrap items-center gap-2">
            <Mark verdict={judged.verdict} /> {judged.says}
          </p>
        )}
        <div className="flex flex-wrap items-start gap-6">
          {judged?.section && d && <Cut section={judged.section} drawing={d} width={190} />}
          <ol className="min-w-72 flex-1">
            {steps.map((s, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a step's place is its identity
              <li key={i} className="flex break-inside-avoid items-start gap-3 border-base-300 border-b py-1.5">
                <span className="mt-0.5 size-5 shrink-0 border-2 border-base-content" aria-hidden="true" />
                <span className="w-5 text-right font-head tabular-nums">{i + 1}</span>
                <span className="flex-1 leading-tight">
                  <b className="font-semibold">{says[i]?.title ?? stepName(v, s)}</b>
                  <span className="block text-sm">{says[i]?.notes}</span>
                </span>
                <span className="w-24 border-base-300 border-b text-secondary text-xs">done at</span>
              </li>
            ))}
          </ol>
        </div>
        {judged?.ready && judged.verdict !== "fails" && <p className="mt-2">{judged.ready.says}</p>}
        {(off.length > 0 || damage.length > 0) && (
          <section className="mt-3 grid break-inside-avoid gap-x-6 gap-y-2 text-sm sm:grid-cols-2 print:grid-cols-2">
            {off.length > 0 && (
              <div>
                <h3 className="font-semibold text-base">Remove first</h3>
                <ul>
                  {off.map(({ n, f, l }) => (
                    <li key={n} className="flex items-start gap-2">
                      <Tick on={!!f.off} />
                      <span>
                        {(f.count ?? 1) > 1 && `${f.count} × `}
                        {l.title.toLowerCase()} {l.labels}
                        {l.do === "mask" && ", masked"}
                        {f.where && `: ${f.where}`}
                        {l.drills && `. ${l.holes}`}
                      </span>
                    </li>
                  ))}
                </ul>
              </div>
            )}
            {damage.length > 0 && (
              <div>
                <h3 className="font-semibold text-base">Repair before painting</h3>
                <ul>
                  {damage.map((x) => (
                    <li key={`${x.label}${x.id}`} className="flex items-start gap-2">
                      <Tick on={false} />
                      <span>
                        {x.label && <b className="font-semibold">{x.label} </b>}
                        {(x.count ?? 1) > 1 && `${x.count} × `}
                        {nameOf(v.defects, x.id).toLowerCase()}
                        {x.place && `, ${x.place}`}
                      </span>
                    </li>
                  ))}
                </ul>
                {own?.mending.says.slice(0, 2).map((s) => (
                  <p key={s}>{s}</p>
                ))}
              </div>
            )}
          </section>
        )}
        {said.length > 0 && (
          <section className="mt-3">
            <h3 className="font-semibold">Settle before you start</h3>
            <ul className="list-disc pl-5">
              {said.map((f) => (
                <li key={`${f.code}${f.step}${f.title}`}>
                  {f.title}
                  {f.step ? `, step ${f.step}` : ""}. {f.why}
                </li>
              ))}
            </ul>
          </section>
        )}
        {cautions.length > 0 && (
          <section className="mt-3 break-inside-avoid">
            <h3 className="font-semibold">Cautions</h3>
            <ul className="list-disc pl-5">
              {cautions.map((f) => (
                <li key={`${f.code}${f.step}`}>
                  <b className="font-semibold">{f.title}.</b> {f.why}
                </li>
              ))}
            </ul>
          </section>
        )}
        <Estimate className="mt-3" />
      </article>
    </div>
  );
}

/** Tick is a box to be ticked on paper. */
function Tick({ on }: { on: boolean }) {
  return (
    <span
      className={`mt-1 inline-block size-3.5 shrink-0 border-2 border-base-content ${on ? "bg-base-content" : ""}`}
      aria-hidden="true"
    />
  );
}
