import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { KeyRound, Smartphone, TriangleAlert } from "lucide-react";
import { useEffect, useState } from "react";
import { answer, api, type Schemas, why } from "../api/client";
import { useStudio } from "../api/studio";
import { spell } from "../clocks/useClocks";
import { Shell } from "../frame/Shell";
import { StatusStrip } from "../frame/StatusStrip";
import { Dialog } from "../ui/Dialog";
import { RemoveDialog } from "../ui/RemoveDialog";
import { count, useUnits, when } from "../ui/units";

type Devices = Schemas["Devices"];
type Device = Schemas["Device"];

const KEY = ["devices"];
const WATCHED = 1500; // ms between two looks while a code waits for its device
const IDLE = 30_000;

/** DevicesPage pairs devices in the workshop's network, and takes them off. */
export default function DevicesPage() {
  const studio = useStudio();
  const [address, setAddress] = useState<string>();
  const q = useQuery({
    queryKey: [...KEY, address],
    queryFn: ({ signal }) => answer(api.GET("/api/devices", { params: { query: { address } }, signal })),
    refetchInterval: (x) => (x.state.data?.code ? WATCHED : IDLE),
    placeholderData: (was) => was,
    retry: false,
  });
  useEffect(() => {
    document.title = "Devices · Rutile";
  }, []);
  return (
    <Shell head={<h1 className="font-semibold text-lg">Devices</h1>} strip={<StatusStrip air={studio?.air} />}>
      <div className="mx-auto w-full max-w-5xl flex-1 px-3 py-4 sm:px-5">
        {q.isError && !q.data && (
          <p role="alert" className="first-letter:uppercase">
            {why(q.error)}
          </p>
        )}
        {q.data && <View d={q.data} address={address} onAddress={setAddress} />}
      </div>
    </Shell>
  );
}

/** useDo does something with devices; the answer is how they are then. */
function useDo<T>(run: (x: T) => Promise<Devices>, then?: () => void) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: run,
    onSuccess: (d) => {
      queries.setQueriesData({ queryKey: KEY }, d);
      then?.();
    },
    onError: () => void queries.invalidateQueries({ queryKey: KEY }),
  });
}

type ViewProps = { d: Devices; address?: string; onAddress: (a: string) => void };

function View({ d, address, onAddress }: ViewProps) {
  const paired = d.devices.filter((x) => !x.revoked);
  const off = d.devices.filter((x) => x.revoked);
  const code = useDo((device?: string) => answer(api.POST("/api/devices/code", { body: { device, address } })));
  const end = useDo(() => answer(api.DELETE("/api/devices/code")));
  const held = paired.filter((x) => x.held).length;
  return (
    <div className="grid items-start gap-x-10 gap-y-6 lg:grid-cols-[1fr_20rem]" data-devices={paired.length}>
      <div>
        <Opened d={d} />
        {held > 0 && (
          <p role="alert" className="sheet wash mb-3 flex items-start gap-2 px-3 py-2" data-held={held}>
            <TriangleAlert className="mt-0.5 size-5 shrink-0 text-warning" aria-hidden="true" />
            The data was brought back from a copy, or is on another disk. In a copy, a device may still be paired that
            was taken off since: let in again only those that you know.
          </p>
        )}
        <h2 className="mt-2 mb-1 font-semibold text-primary text-xl">Paired</h2>
        {paired.length === 0 && <p>No device is paired yet.</p>}
        <ul className="grid gap-2">
          {paired.map((x) => (
            <Row key={x.id} x={x} open={d.open} onCode={() => code.mutate(x.id)} />
          ))}
        </ul>
        {off.length > 0 && (
          <details className="mt-4" data-off={off.length}>
            <summary className="min-h-11 cursor-pointer py-2 font-medium">
              {count(off.length, "device was taken off", "devices were taken off")}
            </summary>
            <ul className="grid gap-2">
              {off.map((x) => (
                <Row key={x.id} x={x} open={d.open} onCode={() => code.mutate(x.id)} />
              ))}
            </ul>
          </details>
        )}
      </div>
      {d.open && (
        <section aria-label="Pairing" className="lg:sticky lg:top-4">
          {d.code ? (
            <Code
              c={d.code}
              of={d.devices.find((x) => x.id === d.code?.device)?.name}
              addresses={d.addresses}
              onAddress={onAddress}
              onEnd={() => end.mutate(undefined)}
            />
          ) : (
            <button
              type="button"
              data-do="pair"
              className="btn btn-primary min-h-16 w-full text-xl"
              disabled={!d.addresses.length || code.isPending}
              onClick={() => code.mutate(undefined)}
            >
              <KeyRound className="size-6" aria-hidden="true" /> Pair a device
            </button>
          )}
          {code.isError && (
            <p role="alert" className="mt-2 text-error">
              {why(code.error)}
            </p>
          )}
          <p className="mt-4 text-secondary text-sm">
            Devices warn of this computer until they have installed its certificate authority; each is shown how.
          </p>
          <dl className="mt-2 text-sm" data-authority>
            <dt className="text-secondary">It is called</dt>
            <dd className="mb-1">{d.authority}</dd>
            <dt className="text-secondary">Its SHA-256 fingerprint</dt>
            <dd className="mb-1 break-all font-mono text-xs">{d.fingerprint}</dd>
          </dl>
        </section>
      )}
    </div>
  );
}

/** Opened says whether devices reach this computer, and what that means. */
function Opened({ d }: { d: Devices }) {
  if (!d.open) {
    return (
      <div className="mb-4 max-w-2xl text-lg" data-closed>
        <p>
          Only this computer reaches Rutile now. To use it on phones and tablets in the workshop as well, start it with
        </p>
        <p className="my-2">
          <code className="rounded bg-base-200 px-2 py-1">rutile serve --lan</code>
        </p>
        <p>Then pair each device here, by a code.</p>
      </div>
    );
  }
  return (
    <div className="mb-4" data-opened>
      <p className="text-lg">
        {d.addresses.length ? (
          <>
            Open to the workshop at{" "}
            {d.addresses.map((a, n) => (
              <span key={a}>
                {n > 0 && ", "}
                <b className="font-semibold">{a}</b>
              </span>
            ))}
            .
          </>
        ) : (
          "This computer has no address in a network at home now. Connect it, and look here again."
        )}
      </p>
      <p>
        Whoever is in this network gets no more than a page that asks for a pairing code. A paired device can read and
        change everything, until you take it off.
      </p>
    </div>
  );
}

type CodeProps = {
  c: Schemas["PairingCode"];
  of?: string;
  addresses: string[];
  onAddress: (a: string) => void;
  onEnd: () => void;
};

/** Code is the code with which a device can be paired now. */
function Code({ c, of, addresses, onAddress, onEnd }: CodeProps) {
  const at = new URL(c.url).origin;
  return (
    <div className="sheet rounded px-4 py-3 text-center" data-code={c.code}>
      <p className="mb-2">{of ? `Scan this with ${of}, to pair it again.` : "Scan this with the device's camera."}</p>
      <svg
        viewBox={`-3 -3 ${c.size + 6} ${c.size + 6}`}
        className="mx-auto w-64 rounded bg-white"
        role="img"
        aria-label={`QR code of ${at}/pair`}
        shapeRendering="crispEdges"
      >
        <path d={c.qr} fill="black" />
      </svg>
      <p className="mt-2">
        Or open <b className="break-all font-semibold">{at}</b> on it and type
      </p>
      <p className="my-1 whitespace-nowrap font-semibold text-4xl tracking-wider">{c.code}</p>
      <p role="status" className="text-secondary">
        good for {spell(c.left_s)} and for {count(c.tries, "wrong try", "wrong tries")}
      </p>
      {addresses.length > 1 && (
        <label className="mt-2 block text-left text-sm">
          <span className="block text-secondary">The device is in the network of</span>
          <select className="select w-full" value={at} data-field="address" onChange={(e) => onAddress(e.target.value)}>
            {addresses.map((a) => (
              <option key={a}>{a}</option>
            ))}
          </select>
        </label>
      )}
      <button type="button" data-do="end-code" className="btn mt-2 min-h-11" onClick={onEnd}>
        Stop pairing
      </button>
    </div>
  );
}

function Row({ x, open, onCode }: { x: Device; open: boolean; onCode: () => void }) {
  const u = useUnits();
  const [ask, setAsk] = useState<"off" | "name">();
  const path = { id: x.id };
  const off = useDo(
    () => answer(api.DELETE("/api/devices/{id}", { params: { path } })),
    () => setAsk(undefined),
  );
  const letIn = useDo(() => answer(api.POST("/api/devices/{id}/let-in", { params: { path } })));
  const now = Date.now();
  return (
    <li
      className="flex flex-wrap items-center gap-x-3 gap-y-2 rounded border border-base-300 px-3 py-2"
      data-device={x.id}
      data-revoked={x.revoked ? "" : undefined}
    >
      <Smartphone className="size-6 shrink-0 text-primary" aria-hidden="true" />
      <span className="min-w-52 flex-1 leading-tight">
        <b className="font-semibold text-lg">
          <bdi>{x.name}</bdi>
        </b>
        <span className="block text-secondary">
          {x.revoked ? `taken off ${when(x.revoked, now, u)}` : `last seen ${when(x.seen, now, u)}`}; paired{" "}
          {when(x.paired, now, u)}; {count(x.entries, "entry", "entries")} in the log
        </span>
        {x.held && <span className="block font-medium text-warning">Not let in: the data comes from a copy.</span>}
        {x.moved && !x.held && (
          <span className="block font-medium" data-moved>
            It knows this computer by an address that is no longer its own. Pair it again: it stays the same device.
          </span>
        )}
      </span>
      <span className="flex flex-wrap gap-2">
        {x.held && (
          <button
            type="button"
            data-do="let-in"
            className="btn btn-primary min-h-11"
            onClick={() => letIn.mutate(undefined)}
          >
            Let it in
          </button>
        )}
        {open && (x.moved || x.revoked) && (
          <button type="button" data-do="again" className="btn min-h-11" onClick={onCode}>
            Pair it again
          </button>
        )}
        {!x.revoked && (
          <>
            <button type="button" data-do="name" className="btn btn-ghost min-h-11" onClick={() => setAsk("name")}>
              Rename
            </button>
            <button type="button" data-do="off" className="btn btn-ghost min-h-11" onClick={() => setAsk("off")}>
              Take it off
            </button>
          </>
        )}
      </span>
      {letIn.isError && <p className="text-error">{why(letIn.error)}</p>}
      {ask === "name" && <Rename x={x} onClose={() => setAsk(undefined)} />}
      {ask === "off" && (
        <RemoveDialog
          title={`Take off ${x.name}?`}
          removal={{ error: off.error, isPending: off.isPending, mutate: () => off.mutate(undefined) }}
          onClose={() => setAsk(undefined)}
        >
          Nothing answers it from then on. What it has sent stays in the logs. What it has not sent yet stays on it, and
          is named there when it comes back.
        </RemoveDialog>
      )}
    </li>
  );
}

function Rename({ x, onClose }: { x: Device; onClose: () => void }) {
  const [name, setName] = useState(x.name);
  const save = useDo(
    () => answer(api.PUT("/api/devices/{id}", { params: { path: { id: x.id } }, body: { name: name.trim() } })),
    onClose,
  );
  return (
    <Dialog title="Name of the device" onClose={onClose}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          save.mutate(undefined);
        }}
      >
        <label className="mb-2 block">
          <span className="block font-medium text-secondary text-sm">Name, such as Phone by the window</span>
          <input
            className="input w-full"
            data-field="device-name"
            value={name}
            maxLength={60}
            autoComplete="off"
            onChange={(e) => setName(e.target.value)}
          />
        </label>
        {save.isError && (
          <p role="alert" className="mb-2 text-error">
            {why(save.error)}
          </p>
        )}
        <button type="submit" className="btn btn-primary min-h-12" disabled={!name.trim()} data-do="save-name">
          Save
        </button>
      </form>
    </Dialog>
  );
}
