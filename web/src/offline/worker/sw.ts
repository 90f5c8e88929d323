import { cacheNames } from "workbox-core";
import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";
import { CacheFirst } from "workbox-strategies";

// The service worker of a paired device: it has the page itself, and the last answers of the computer, so that both are
// there without it.

declare const self: ServiceWorkerGlobalScope;
declare const __FILES__: { url: string; revision: string | null }[];

const ANSWERS = "rutile-answers";
const PICTURES = "rutile-pictures";
const MOST = { [ANSWERS]: 1500, [PICTURES]: 300 };
const PATIENCE = 3000; // ms that the computer has to answer, where there is an answer from before
const WORK = 8000; // ms that it has for a question with a whole piece, which takes work
const SILENT = 4000; // ms that it is not waited for again after it did not answer

// The page. Where a place inside it is opened, it is the same page.
precacheAndRoute(__FILES__);
cleanupOutdatedCaches();
registerRoute(
  new NavigationRoute(createHandlerBoundToURL("/index.html"), {
    denylist: [/^\/api\//, /^\/photos\//, /^\/pair$/, /^\/authority\.crt$/, /^\/licences\.txt$/],
  }),
);

const NOTHING = '<svg xmlns="http://www.w3.org/2000/svg" width="1" height="1"/>';

// Pictures never change: their names are made from what is in them.
const pictures = new CacheFirst({
  cacheName: PICTURES,
  plugins: [
    {
      cacheWillUpdate: async ({ response }) => {
        await turnedAway(response);
        return response.ok ? response : null;
      },
      cacheDidUpdate: () => trim(PICTURES),
      // Without it, browsers draw a torn picture.
      handlerDidError: async () => new Response(NOTHING, { headers: { "Content-Type": "image/svg+xml" } }),
    },
  ],
});
registerRoute(({ url, sameOrigin }) => sameOrigin && url.pathname.startsWith("/photos/"), pictures);

// The same question has the same answer until the computer gives another: what is read, and the two questions that
// are asked with a whole piece.
const ASKED = ["/api/check", "/api/cards"];
const never = (path: string) =>
  path.startsWith("/api/devices") || path.startsWith("/api/plans") || path.endsWith("/file") || path.endsWith(".csv");
registerRoute(
  ({ url, sameOrigin }) => sameOrigin && url.pathname.startsWith("/api/") && !never(url.pathname),
  ({ request, event }) => answerTo(request, event as ExtendableEvent),
);
registerRoute(
  ({ url, sameOrigin }) => sameOrigin && ASKED.includes(url.pathname),
  ({ request, event }) => answerTo(request, event as ExtendableEvent),
  "POST",
);

/** keyOf is what a question is known by: its address, and a digest of its body. */
async function keyOf(r: Request): Promise<string> {
  if (r.method === "GET") return r.url;
  const digest = await crypto.subtle.digest("SHA-256", await r.clone().arrayBuffer());
  const hex = Array.from(new Uint8Array(digest), (b) => b.toString(16).padStart(2, "0")).join("");
  return `${r.url}${r.url.includes("?") ? "&" : "?"}body=${hex}`;
}

let silent = 0; // when the computer last did not answer

/** answerTo asks the computer; where it does not answer in time, what it answered before stands in. */
async function answerTo(request: Request, event: ExtendableEvent): Promise<Response> {
  const key = await keyOf(request);
  const kept = () => caches.open(ANSWERS).then((c) => c.match(key));
  const now = fetch(request).then(async (r) => {
    silent = 0;
    if (r.ok) event.waitUntil(keep(key, r.clone()));
    await turnedAway(r);
    return r;
  });
  const failed = () => {
    silent = performance.now() || 1;
    return undefined;
  };
  const patience = silent && performance.now() - silent < SILENT ? 0 : request.method === "GET" ? PATIENCE : WORK;
  const first = await Promise.race([now.catch(failed), new Promise<undefined>((r) => setTimeout(r, patience))]);
  if (first) return first;
  const before = await kept();
  if (before) {
    event.waitUntil(now.catch(failed));
    if (patience) silent = performance.now() || 1;
    return before;
  }
  return now;
}

const CALM = 400; // ms that an answer waits to be kept: what is drawn comes first
const newest = new Map<string, number>(); // the number of the last answer to a question
let answers = 0;
const OFTEN = 50; // answers after which it is looked whether there are too many
let puts = 0;
let visit = 0; // counts how often this device was not let in

/** keep keeps an answer with the time at which it came. Without room for it, the next time is another. */
async function keep(key: string, r: Response, calm = CALM) {
  const [at, of, n] = [Date.now(), visit, ++answers];
  newest.set(key, n);
  await new Promise((done) => setTimeout(done, calm));
  if (newest.get(key) !== n) return; // another has come since
  if (of !== visit) return; // not let in any more since
  const headers = new Headers(r.headers);
  headers.set("X-Kept-At", String(at));
  headers.delete("Content-Encoding");
  try {
    const cache = await caches.open(ANSWERS);
    await cache.put(key, new Response(await r.blob(), { status: r.status, headers }));
    if (++puts % OFTEN === 0) await trim(ANSWERS);
  } catch {
    // The device has no room: pictures go first.
    await caches.delete(PICTURES);
  }
}

/** trim removes the oldest of a cache where there are too many. */
async function trim(name: keyof typeof MOST) {
  const all = await caches.open(name);
  const keys = await all.keys();
  if (keys.length <= MOST[name]) return;
  const ages = await Promise.all(keys.map(async (k) => Number((await all.match(k))?.headers.get("X-Kept-At") ?? 0)));
  const oldest = keys.map((k, i) => ({ k, at: ages[i] ?? 0 })).sort((a, b) => a.at - b.at);
  await Promise.all(oldest.slice(0, keys.length - MOST[name]).map(({ k }) => all.delete(k)));
}

/** turnedAway forgets everything that was taken along, once the computer does not let this device in any more. */
async function turnedAway(r: Response) {
  if (r.status !== 401 || !r.headers.get("X-Rutile-Device")) return;
  visit++;
  await Promise.all([caches.delete(ANSWERS), caches.delete(PICTURES)]);
}

// Browsers that can (Static Routing) take the page's files from where they are kept without asking this worker first.
type Routed = ExtendableEvent & { addRoutes?: (rules: unknown) => Promise<void> };
self.addEventListener("install", (e: Routed) => {
  const files = { condition: { urlPattern: "/assets/*" }, source: { cacheName: cacheNames.precache } };
  if (e.addRoutes) e.waitUntil(e.addRoutes([files]).catch(() => undefined));
});

self.addEventListener("activate", (e) => e.waitUntil(self.clients.claim()));
self.addEventListener("message", (e) => {
  if (e.data === "take over") void self.skipWaiting();
  // An answer that came with another.
  else if (e.data?.path) {
    const headers = { "Content-Type": "application/json" };
    e.waitUntil(keep(new URL(e.data.path, self.location.href).href, new Response(e.data.is, { headers }), 0));
  }
});

// A notification that is pressed brings the page to the front.
self.addEventListener("notificationclick", (e) => {
  e.notification.close();
  e.waitUntil(
    self.clients.matchAll({ type: "window" }).then((all) => {
      const open = all[0];
      return open ? open.focus() : self.clients.openWindow("/clocks");
    }),
  );
});
