import { notifyManager, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { lazy, type ReactNode, StrictMode, Suspense, useEffect } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Route, Routes } from "react-router";
import { useReach } from "./api/reach";
import { STUDIO, StudioProvider, useStudio } from "./api/studio";
import { INSTRUMENTS, InstrumentsProvider } from "./frame/useInstruments";
import "./app.css";
import { PiecePage } from "./piece/PiecePage";
import { PiecesPage } from "./pieces/PiecesPage";
import { ErrorBoundary, NotFound } from "./ui/NotFound";
import { whenReleased } from "./ui/press";

// Opened now and then: the first load is without them.
const ClocksPage = lazy(() => import("./clocks/ClocksPage"));
const ColourPage = lazy(() => import("./colour/ColourPage"));
const KitPage = lazy(() => import("./kit/KitPage"));
const RulesPage = lazy(() => import("./rules/RulesPage").then((m) => ({ default: m.RulesPage })));
const ShelfPage = lazy(() => import("./shelf/ShelfPage"));
const TodayPage = lazy(() => import("./today/TodayPage"));
const DevicesPage = lazy(() => import("./devices/DevicesPage"));
const NoAccessPage = lazy(() => import("./offline/NoAccessPage"));
const PhonePage = lazy(() => import("./offline/PhonePage"));
const TinLabels = lazy(() => import("./shelf/TinLabels"));

// The server is on this machine or near it: whether the browser considers itself online is irrelevant.
const queries = new QueryClient({
  defaultOptions: {
    queries: { retry: 1, refetchOnWindowFocus: false, networkMode: "always" },
    mutations: { networkMode: "always" },
  },
});

// An answer is drawn when it arrives, and not a turn later; but never under a finger.
notifyManager.setScheduler((f) => queueMicrotask(() => whenReleased(f)));

const FONTS = ['1em "Besley Variable"', '1em "Atkinson Hyperlegible Next Variable"'];
const PATIENCE = 500; // ms that the first drawing waits for fonts and data

/** Nothing moves once it is drawn: fonts, settings and the air are loaded before the first drawing. */
async function ready() {
  const late = new Promise((r) => setTimeout(r, PATIENCE));
  const fonts = Promise.all(FONTS.map((f) => document.fonts.load(f)));
  await Promise.race([
    Promise.allSettled([fonts, queries.prefetchQuery(STUDIO), queries.prefetchQuery(INSTRUMENTS)]),
    late,
  ]);
}

/** Paired starts what a paired device needs, and takes the place of the page where the computer does not let it in. */
function Paired({ children }: { children: ReactNode }) {
  const device = !!useStudio()?.device;
  const { denied } = useReach();
  useEffect(() => {
    if (device) import("./offline/start").then((m) => m.start(queries)).catch(() => undefined); // at the next load
  }, [device]);
  return denied ? <NoAccessPage /> : children;
}

const root = document.getElementById("root");
if (root) {
  void ready().then(() =>
    createRoot(root).render(
      <StrictMode>
        <QueryClientProvider client={queries}>
          <StudioProvider>
            <InstrumentsProvider>
              <BrowserRouter useTransitions={false}>
                <ErrorBoundary>
                  <Suspense>
                    <Paired>
                      <Routes>
                        <Route path="/" element={<PiecesPage />} />
                        <Route path="/pieces/:id/:zone?/:view?" element={<PiecePage />} />
                        <Route path="/kit" element={<KitPage />} />
                        <Route path="/rules" element={<RulesPage />} />
                        <Route path="/shelf" element={<ShelfPage />} />
                        <Route path="/shelf/labels" element={<TinLabels />} />
                        <Route path="/today" element={<TodayPage />} />
                        <Route path="/clocks" element={<ClocksPage />} />
                        <Route path="/devices" element={<DevicesPage />} />
                        <Route path="/phone" element={<PhonePage />} />
                        <Route path="/colours" element={<ColourPage />} />
                        <Route path="*" element={<NotFound />} />
                      </Routes>
                    </Paired>
                  </Suspense>
                </ErrorBoundary>
              </BrowserRouter>
            </InstrumentsProvider>
          </StudioProvider>
        </QueryClientProvider>
      </StrictMode>,
    ),
  );
}
