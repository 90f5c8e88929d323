import { useQuery } from "@tanstack/react-query";
import { Check, CloudOff, Download, RotateCw, Smartphone, TriangleAlert } from "lucide-react";
import { type ReactNode, useEffect, useState } from "react";
import { useLocation, useNavigate } from "react-router";
import { answer, api, type Schemas, why } from "../api/client";
import { useReach } from "../api/reach";
import { useStudio } from "../api/studio";
import { Ringer } from "../clocks/Ringer";
import { Shell } from "../frame/Shell";
import { StatusStrip } from "../frame/StatusStrip";
import { useShared } from "../ui/shared";
import { count } from "../ui/units";
import { takeOver, waiting } from "../work/queue";
import { useLog, useWaiting } from "../work/useLog";
import { Waits } from "../work/Waits";
import { carried, fetchFrom, moveIn, takeTo } from "./move";
import { type Offline, update, useOffline } from "./start";

type This = Schemas["ThisDevice"];

/** PhonePage is what a paired device can do, and what it needs for that. */
export default function PhonePage() {
  const studio = useStudio();
  const q = useQuery({
    queryKey: ["this-device"],
    queryFn: ({ signal }) => answer(api.GET("/api/this-device", { signal })),
    retry: false,
  });
  useEffect(() => {
    document.title = "This device · Rutile";
  }, []);
  return (
    <Shell head={<h1 className="font-semibold text-lg">This device</h1>} strip={<StatusStrip air={studio?.air} />}>
      <div className="mx-auto w-full max-w-2xl flex-1 px-3 py-4 sm:px-5" data-phone={studio?.device ?? ""}>
        <Moving />
        {q.isError && !q.data && (
          <p className="first-letter:uppercase">
            {why(q.error)} {!studio?.device && "Nothing has to be done here for it to work."}
          </p>
        )}
        {q.data && <View device={q.data} />}
      </div>
    </Shell>
  );
}

function View({ device }: { device: This }) {
  const offline = useOffline();
  const log = useLog();
  const all = useWaiting(log.again);
  const { kept } = useReach();
  return (
    <>
      <p className="mb-4 flex items-center gap-3 text-lg">
        <Smartphone className="size-8 shrink-0 text-primary" aria-hidden="true" />
        <span>
          Paired as <b className="font-semibold">{device.name}</b>. What is logged here has that name.
        </span>
      </p>
      <Part title="Without the computer">
        <Reach offline={offline} device={device} away={kept !== undefined} />
      </Part>
      <Part title="What is not sent yet">
        <Waits log={log} />
        {all.length === 0 && <p>Everything that was logged here is on the computer.</p>}
      </Part>
      <Part title="Clocks">
        <Ringer />
      </Part>
    </>
  );
}

const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <section className="mb-6">
    <h2 className="mb-1 font-semibold text-primary text-xl">{title}</h2>
    {children}
  </section>
);

type ReachProps = { offline: Offline; device: This; away: boolean };

function Reach({ offline, device, away }: ReachProps) {
  const says = (Icon: typeof Check, text: string, good = false) => (
    <p role="status" className="mb-2 flex items-start gap-2" data-offline={offline.is}>
      <Icon className={`mt-0.5 size-6 shrink-0 ${good ? "text-success" : "text-warning"}`} aria-hidden="true" />
      <span>{text}</span>
    </p>
  );
  return (
    <>
      {offline.is === "ready" &&
        says(
          Check,
          "It works out of reach: Today, the open pieces with their cards and clocks, and the log are on this device.",
          true,
        )}
      {(offline.is === "taking" || offline.is === "unknown") &&
        (away
          ? says(CloudOff, "The computer is out of reach. What this device took along is here.")
          : says(RotateCw, "It takes along what it needs to work out of reach…"))}
      {offline.is === "cannot" &&
        says(
          TriangleAlert,
          "It works only while the computer is in reach: this browser keeps nothing for later. Is it a private window?",
        )}
      {offline.is === "untrusted" && (
        <>
          {says(
            TriangleAlert,
            "It works only while the computer is in reach: this browser does not trust the computer yet.",
          )}
          <Install device={device} />
        </>
      )}
      {offline.update && (
        <p className="flex flex-wrap items-center gap-3">
          A newer version of this page is here. What waits to be sent stays.
          <button type="button" data-do="update" className="btn min-h-12" onClick={update}>
            <RotateCw className="size-5" aria-hidden="true" /> Use it now
          </button>
        </p>
      )}
    </>
  );
}

/** Install shows how the certificate authority is installed. */
function Install({ device }: { device: This }) {
  return (
    <div className="sheet px-3 py-2" data-install>
      <p className="mb-2">
        To end the browser's warning and to work out of reach, install the studio's certificate authority. It vouches
        for addresses in networks at home only.
      </p>
      <a className="btn btn-primary mb-2 min-h-14 w-full text-lg" href="/authority.crt" data-do="authority">
        <Download className="size-5" aria-hidden="true" /> Download the authority
      </a>
      <ul className="mb-2 grid gap-1.5">
        <li>
          <b className="font-semibold">Android:</b> open the settings, search for “CA certificate”, choose it, and pick
          the downloaded file.
        </li>
        <li>
          <b className="font-semibold">iPhone, iPad:</b> open the settings and install the downloaded profile; then,
          under General, About, Certificate trust settings, switch it on.
        </li>
        <li>
          <b className="font-semibold">Others:</b> open the browser's settings, search for “certificates”, and import
          the file as an authority for websites.
        </li>
      </ul>
      <p className="mb-2">Then close the browser and open this page again.</p>
      <dl className="text-sm">
        <dt className="text-secondary">It must be called</dt>
        <dd className="mb-1">{device.authority}</dd>
        <dt className="text-secondary">and have the fingerprint that Devices shows on the computer</dt>
        <dd className="break-all font-mono text-xs">{device.fingerprint}</dd>
      </dl>
    </div>
  );
}

/** Moving takes what waits from an old address of the computer to the new one. */
function Moving() {
  const { hash } = useLocation();
  const go = useNavigate();
  const here = useShared(waiting);
  const [move] = useState(() => moveIn(hash));
  const [step, setStep] = useState<"asked" | "over">("asked");
  if (step === "over") return null;
  const over = () => {
    setStep("over");
    void go("/phone", { replace: true });
  };
  if (move.taken && move.from) {
    const all = move.taken;
    return (
      <Asks
        says={`${count(all.length, "entry", "entries")} from this device, logged while it knew the computer at ${move.from}. Keep and send them?`}
        yes="Keep and send"
        kind="keep"
        onYes={() => void takeOver(all).then(over)}
        onNo={over}
      />
    );
  }
  if (move.to) {
    const to = move.to;
    const all = carried();
    const stay = here.length - all.length;
    return (
      <Asks
        says={`${count(all.length, "entry waits", "entries wait")} here. Take them to ${to}? Go on only if that is the address on the computer's screen.${stay ? ` ${stay} stay here until this address answers again: they have pictures.` : ""}`}
        yes="Take them there"
        kind="take"
        to={takeTo(to, all)}
        onNo={over}
      />
    );
  }
  if (move.before) {
    return (
      <Asks
        says={`This device knew the computer at ${move.before}. If something logged there was not sent yet, fetch it now.`}
        yes="Fetch it"
        kind="fetch"
        to={fetchFrom(move.before)}
        onNo={over}
      />
    );
  }
  return null;
}

type AsksProps = { says: string; yes: string; kind: string; to?: string; onYes?: () => void; onNo: () => void };

function Asks({ says, yes, kind, to, onYes, onNo }: AsksProps) {
  return (
    <section className="sheet wash mb-4 px-3 py-3" data-move={kind}>
      <p className="mb-2 text-lg">{says}</p>
      <div className="flex gap-2">
        {to ? (
          <a className="btn btn-primary min-h-12" data-do="move" href={to}>
            {yes}
          </a>
        ) : (
          <button type="button" className="btn btn-primary min-h-12" data-do="move" onClick={onYes}>
            {yes}
          </button>
        )}
        <button type="button" className="btn min-h-12" data-do="no-move" onClick={onNo}>
          No
        </button>
      </div>
    </section>
  );
}
