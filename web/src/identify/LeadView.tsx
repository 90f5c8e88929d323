import { ShieldAlert, ShieldCheck } from "lucide-react";
import { useEffect, useState } from "react";
import type { Schemas, ZoneResult } from "../api/client";
import { useWorkspace } from "../piece/workspace";
import { FormSection } from "../survey/FormSection";
import { Choice } from "../ui/Choice";
import { today } from "../ui/clock";
import { DateField } from "../ui/DateField";
import { TextField } from "../ui/Field";

type Test = Schemas["LeadTest"];
type Draft = { result?: Test["result"]; by?: Test["by"]; date?: string; report?: string };

const BY = [
  { id: "laboratory", name: "a laboratory" },
  { id: "assessor", name: "a licensed assessor" },
  { id: "swab", name: "a home swab" },
];

/** LEAD_STATES are those that a note is shown for, the worst first. */
export const LEAD_STATES = ["found", "suspect", "undated"] as const;

/** LeadNote is above every stage while lead is not ruled out, and cannot be dismissed. */
export function LeadNote({ lead, of, onLead }: { lead: ZoneResult["lead"]; of?: string; onLead?: () => void }) {
  if (!lead || lead.state === "excluded") return null;
  const mild = lead.state === "undated";
  return (
    <div
      role="alert"
      data-lead={lead.state}
      className={`flex flex-wrap items-center gap-x-3 gap-y-1 border-b-2 px-3 py-1.5 sm:px-5 print:border-2 ${mild ? "border-warning bg-base-200" : "border-error bg-error text-error-content print:bg-transparent print:text-error"}`}
    >
      <ShieldAlert className={`size-6 shrink-0 ${mild ? "text-warning" : ""}`} aria-hidden="true" />
      <span className="min-w-0 flex-1 leading-tight">
        {of && (
          <>
            <bdi>{of}</bdi>:{" "}
          </>
        )}
        <b className="font-semibold">
          {lead.state === "found" ? "Lead." : mild ? "Lead not ruled out." : "Suspected lead."}
        </b>{" "}
        {lead.says}
      </span>
      {onLead && (
        <button
          data-do="lead"
          type="button"
          className={`btn no-print bg-transparent font-normal ${mild ? "border-base-content" : "border-error-content text-error-content"}`}
          onClick={onLead}
        >
          {lead.state === "found" ? "The result" : "Enter a result"}
        </button>
      )}
    </div>
  );
}

/** LeadView is what is known of lead in a zone, and where the dated result is entered. */
export function LeadView() {
  const { id, zone, judged, change } = useWorkspace();
  const lead = judged?.lead;
  const kept = zone.lead_test;
  const [draft, setDraft] = useDraft(`rutile.lead.${id}.${zone.id}`, kept);
  const put = (part: Partial<Draft>) => setDraft({ ...draft, ...part });
  const missing = [!draft.result && "the result", !draft.by && "who tested it", !draft.date && "the date"].filter(
    Boolean,
  );
  const late = !!draft.date && draft.date > today();
  const same =
    !!kept &&
    kept.result === draft.result &&
    kept.by === draft.by &&
    kept.date === draft.date &&
    (kept.report ?? "") === (draft.report ?? "");
  return (
    <div className="mx-auto max-w-4xl">
      <FormSection title="Does the old coat contain lead?" says="Only a laboratory or a licensed assessor decides">
        <p className="flex gap-2 text-base">
          {lead && lead.state !== "excluded" ? (
            <ShieldAlert
              className={`size-6 shrink-0 ${lead.state === "undated" ? "text-warning" : "text-error"}`}
              aria-hidden="true"
            />
          ) : (
            <ShieldCheck className="size-6 shrink-0 text-success" aria-hidden="true" />
          )}
          <span>
            {lead?.says ?? "Nothing known about this zone suggests lead."}{" "}
            {lead?.noted && <b className="font-semibold">{lead.noted}</b>}
          </span>
        </p>
        {lead?.advice && (
          <ul className="my-2 list-disc pl-6">
            {lead.advice.map((a) => (
              <li key={a}>{a}</li>
            ))}
          </ul>
        )}
      </FormSection>
      <FormSection title="Test result" says="As in the report">
        <div className="grid gap-x-4 sm:grid-cols-2">
          <Choice
            label="Result"
            name="lead_test"
            none="not tested"
            words={[
              { id: "negative", name: "no lead" },
              { id: "positive", name: "lead" },
            ]}
            value={draft.result}
            onChange={(id) => put({ result: (id || undefined) as Draft["result"] })}
          />
          <Choice
            label="Tested by"
            name="lead_test.by"
            none="choose …"
            words={BY}
            value={draft.by}
            hint={
              draft.by === "swab"
                ? "A swab that turns counts as lead until a laboratory says no; one that stays pale clears nothing."
                : undefined
            }
            onChange={(id) => put({ by: (id || undefined) as Draft["by"] })}
          />
          <DateField
            label="Date"
            name="lead_test.date"
            value={draft.date}
            latest={today()}
            error={late ? "This date is in the future." : undefined}
            onChange={(date) => put({ date })}
          />
          <TextField
            label="Report number, or who tested"
            of="lead_test.report"
            value={draft.report ?? ""}
            onChange={(report) => put({ report: report || undefined })}
          />
        </div>
        <div className="mb-2 flex flex-wrap items-center gap-2">
          <button
            data-do="enter"
            type="button"
            className="btn btn-primary h-12"
            disabled={missing.length > 0 || late || same}
            onClick={() => change({ ...zone, lead_test: draft as Test })}
          >
            {draft.by === "swab" ? "Record the swab" : "Enter the result"}
          </button>
          {kept && (
            <button
              data-do="take-out"
              type="button"
              className="btn btn-ghost h-12"
              onClick={() => {
                setDraft({});
                change({ ...zone, lead_test: undefined });
              }}
            >
              Remove it
            </button>
          )}
          <span className="text-secondary" role="status">
            {same ? "Saved." : missing.length > 0 && missing.length < 3 ? `Still missing: ${missing.join(", ")}.` : ""}
          </span>
        </div>
      </FormSection>
    </div>
  );
}

/** useDraft keeps a half-entered result through a reload, and follows the stored one when that changes. */
function useDraft(key: string, kept: Test | undefined): [Draft, (d: Draft) => void] {
  const [draft, setDraft] = useState<Draft>(() => {
    try {
      return { ...kept, ...(JSON.parse(sessionStorage.getItem(key) ?? "{}") as Draft) };
    } catch {
      return { ...kept };
    }
  });
  useEffect(() => {
    if (kept) setDraft(kept);
  }, [kept]);
  return [
    draft,
    (d) => {
      setDraft(d);
      try {
        sessionStorage.setItem(key, JSON.stringify(d));
      } catch {
        // It holds until the page is closed.
      }
    },
  ];
}
