import type { QueryClient } from "@tanstack/react-query";
import { again, answer, api, type Refused } from "../api/client";
import { reach } from "../api/reach";
import { VOCAB } from "../api/vocab";
import { cardsBody } from "../mix/useCards";
import { SHELF } from "../shelf/useShelf";
import { TODAY, TODAY_KEY, type Today } from "../today/useToday";
import { shared, useShared } from "../ui/shared";

// What a paired device does to work without the computer: it installs the service worker, and takes the open pieces
// along.

/** Offline is how far this device works without the computer; update tells that a newer page waits to be used. */
export type Offline = { is: "unknown" | "cannot" | "untrusted" | "taking" | "ready"; update?: boolean };

const offline = shared<Offline>({ is: "unknown" });
const set = (next: Partial<Offline>) => offline.set({ ...offline.now(), ...next });

export const useOffline = () => useShared(offline);

let installed: ServiceWorkerRegistration | undefined;

/** start installs the service worker, and says what came of it. */
export async function start(queries: QueryClient) {
  // What a device shows that is not let in any more must be there by then.
  import("./NoAccessPage").catch(() => undefined);
  const worker = navigator.serviceWorker;
  if (!worker) return set({ is: "cannot" });
  try {
    installed = await worker.register("/sw.js");
  } catch (e) {
    // Out of reach, what is installed stays; a certificate that nobody vouches for is no reason to go on.
    installed = await worker.getRegistration();
    if (!installed?.active) {
      return set({ is: e instanceof DOMException && e.name === "SecurityError" ? "untrusted" : "cannot" });
    }
  }
  set({ is: "taking" });
  watch(installed);
  await worker.ready;
  if (!worker.controller) {
    await new Promise((r) => worker.addEventListener("controllerchange", r, { once: true }));
  }
  await takeAlong(queries);
}

/** watch tells when a newer page has come. */
function watch(r: ServiceWorkerRegistration) {
  const look = () => r.waiting && navigator.serviceWorker.controller && set({ update: true });
  look();
  r.addEventListener("updatefound", () => r.installing?.addEventListener("statechange", look));
  setInterval(() => void r.update().catch(() => undefined), LOOK);
}

const LOOK = 30 * 60_000; // ms between two looks for a newer page

/** update has the newer page used; what waits stays where it is kept. */
export function update() {
  navigator.serviceWorker.addEventListener("controllerchange", () => location.reload(), { once: true });
  installed?.waiting?.postMessage("take over");
}

const SOON = 2000; // ms after what comes next has changed
const AGAIN = 10 * 60_000; // ms after which a piece is taken along anew, changed or not

const taken = new Map<number, { is: string; at: number }>();

/** takeAlong keeps the open pieces at hand, and again whenever they change. */
async function takeAlong(queries: QueryClient) {
  let busy = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const later = () => {
    clearTimeout(timer);
    timer = setTimeout(() => void take(), SOON);
  };
  const take = async () => {
    const today = queries.getQueryData<Today>(TODAY_KEY);
    if (busy || !today || reach().denied) return;
    busy = true;
    let all = false;
    try {
      if (reach().kept === undefined) {
        await takePieces(today);
        all = reach().kept === undefined;
      }
    } catch {
      // Out of reach in the middle of it: the rest is taken later.
    }
    busy = false;
    if (all) set({ is: "ready" });
    else later();
  };
  queries.getQueryCache().subscribe((e) => {
    if (e.type !== "updated" || e.action.type !== "success" || e.query.queryKey[0] !== TODAY_KEY[0]) return;
    later();
  });
  await Promise.allSettled([
    queries.fetchQuery(TODAY),
    queries.fetchQuery(VOCAB),
    queries.fetchQuery(SHELF()),
    answer(api.GET("/api/studio")),
    answer(api.GET("/api/clocks")),
    answer(api.GET("/api/pieces")),
    answer(api.GET("/api/this-device")),
  ]);
  await take();
}

async function takePieces(today: Today) {
  for (const id of new Set(today.items.map((x) => x.piece_id))) {
    const is = JSON.stringify(
      today.items.filter((x) => x.piece_id === id).map((x) => [x.past, x.due.step, x.due.coat]),
    );
    const was = taken.get(id);
    if (was?.is === is && performance.now() - was.at < AGAIN) continue;
    try {
      await takePiece(id);
    } catch (e) {
      if (again(e) || (e as Refused).status === 401) throw e;
      // It was removed meanwhile, or cannot be read: the others are taken all the same.
    }
    taken.set(id, { is, at: performance.now() });
  }
}

async function takePiece(id: number) {
  const params = { path: { id } };
  const { piece } = await answer(api.GET("/api/pieces/{id}", { params }));
  await answer(api.GET("/api/pieces/{id}/log", { params }));
  await answer(api.POST("/api/check", { params: { query: { of: id } }, body: piece }));
  for (const z of piece.zones ?? []) {
    const query = { zone: z.id, of: id };
    await answer(api.POST("/api/cards", { params: { query }, body: cardsBody(piece, z.id) }));
  }
  for (const p of piece.photos ?? []) await fetch(`/photos/small/${p.file}`);
}
