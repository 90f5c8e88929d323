import { notifyManager, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Route, Routes } from "react-router";
import { STUDIO, StudioProvider } from "./api/studio";
import { INSTRUMENTS, InstrumentsProvider } from "./frame/useInstruments";
import "./app.css";
import { PiecePage } from "./piece/PiecePage";
import { PiecesPage } from "./pieces/PiecesPage";
import { RulesPage } from "./rules/RulesPage";
import { ErrorBoundary, NotFound } from "./ui/NotFound";
import { whenReleased } from "./ui/press";

// The server is on this machine or beside it: whether the browser thinks itself online says nothing of it.
const queries = new QueryClient({
  defaultOptions: {
    queries: { retry: 1, refetchOnWindowFocus: false, networkMode: "always" },
    mutations: { networkMode: "always" },
  },
});

// An answer is drawn when it comes, and not a turn later; but never under a finger.
notifyManager.setScheduler((f) => queueMicrotask(() => whenReleased(f)));

const FONTS = ['1em "Besley Variable"', '1em "Atkinson Hyperlegible Next Variable"'];
const PATIENCE = 500; // ms that the first drawing waits for them

/** Nothing moves once it is drawn: letters, the studio's settings and the air are there before the first drawing. */
async function ready() {
  const late = new Promise((r) => setTimeout(r, PATIENCE));
  const fonts = Promise.all(FONTS.map((f) => document.fonts.load(f)));
  await Promise.race([
    Promise.allSettled([fonts, queries.prefetchQuery(STUDIO), queries.prefetchQuery(INSTRUMENTS)]),
    late,
  ]);
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
                  <Routes>
                    <Route path="/" element={<PiecesPage />} />
                    <Route path="/pieces/:id/:zone?/:view?" element={<PiecePage />} />
                    <Route path="/rules" element={<RulesPage />} />
                    <Route path="*" element={<NotFound />} />
                  </Routes>
                </ErrorBoundary>
              </BrowserRouter>
            </InstrumentsProvider>
          </StudioProvider>
        </QueryClientProvider>
      </StrictMode>,
    ),
  );
}
