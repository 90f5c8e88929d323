import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { again, answer, api, removed, type Schemas } from "../api/client";
import { keptAt } from "../api/reach";
import { age } from "../today/useToday";
import { useStable } from "../ui/stable";
import { later, useDoing } from "./doing";
import { withDoing } from "./merged";

export type Clock = Schemas["Clock"];
type Answer = Schemas["Clocks"] & { at: number }; // when it arrived, by a clock that nobody sets

const KEY = ["clocks"];
const RUNNING = 10_000; // ms between two looks at the server's clocks while some run
const IDLE = 60_000;
const ASLEEP = 2_000; // ms by which the two clocks of the browser part when it has slept

const ask = async (signal?: AbortSignal): Promise<Answer> => {
  const call = await api.GET("/api/clocks", { signal });
  const a = await answer(Promise.resolve(call));
  return { ...a, at: performance.now() - age(keptAt(call.response)) };
};

/**
 * useClocks is the clocks as the server keeps them. Between two answers they run down here; after sleep, and when the
 * page comes to the front, the server is asked again.
 */
export function useClocks() {
  const queries = useQueryClient();
  const q = useQuery({
    queryKey: KEY,
    queryFn: ({ signal }) => ask(signal),
    placeholderData: keepPreviousData,
    refetchInterval: (x) => (x.state.data?.clocks.length ? RUNNING : IDLE),
    refetchIntervalInBackground: true,
    structuralSharing: false,
  });
  const waits = useDoing(useStable(() => void queries.invalidateQueries({ queryKey: KEY })));
  useEffect(() => {
    const again = () => void queries.invalidateQueries({ queryKey: KEY });
    const seen = () => document.visibilityState === "visible" && again();
    let apart = Date.now() - performance.now();
    const watch = setInterval(() => {
      const now = Date.now() - performance.now();
      if (Math.abs(now - apart) > ASLEEP) again();
      apart = now;
    }, 1000);
    document.addEventListener("visibilitychange", seen);
    window.addEventListener("pageshow", again);
    window.addEventListener("online", again);
    return () => {
      clearInterval(watch);
      document.removeEventListener("visibilitychange", seen);
      window.removeEventListener("pageshow", again);
      window.removeEventListener("online", again);
    };
  }, [queries]);
  if (!waits.length) return q;
  const data = q.data ?? { clocks: [], at: performance.now() };
  return { ...q, data: { ...data, clocks: withDoing(data.clocks, data.at, waits) } };
}

/** leftOf is how many seconds a clock still runs, now; negative for how long it has been over. */
export const leftOf = (c: Clock, at: number) => c.left_s - (performance.now() - at) / 1000;

/** useTick draws again every so many milliseconds, while something runs. */
export function useTick(ms: number, on: boolean) {
  const [, tick] = useState(0);
  useEffect(() => {
    if (!on) return;
    const t = setInterval(() => tick((n) => n + 1), ms);
    return () => clearInterval(t);
  }, [ms, on]);
}

/** Starting is a clock that is started, with what it is called and how long it runs where the server does not answer. */
type Starting = Schemas["NewClock"] & { name?: string; seconds?: number };

/** useClockDo starts, corrects and stops clocks. */
export function useClockDo() {
  const queries = useQueryClient();
  const done = () => queries.invalidateQueries({ queryKey: KEY });
  const act = <T>(run: (x: T) => Promise<unknown>) => ({ mutationFn: run, onSettled: done });
  return {
    start: useMutation(
      act(({ name, seconds, ...body }: Starting) =>
        answer(api.POST("/api/clocks", { body })).catch((e) => {
          // A typed time is read by the server.
          if (!again(e) || body.typed || !seconds) throw e;
          return later({ do: "start", id: body.id, clock: body, name: name ?? "", seconds });
        }),
      ),
    ),
    touch: useMutation(
      act(({ id, is }: { id: string; is: "sticky" | "dry" }) =>
        answer(api.POST("/api/clocks/{id}/touch", { params: { path: { id } }, body: { is } })),
      ),
    ),
    silence: useMutation(
      act((id: string) =>
        answer(api.POST("/api/clocks/{id}/silence", { params: { path: { id } } })).catch((e) => {
          if (!again(e)) throw e;
          return later({ do: "silence", id });
        }),
      ),
    ),
    stop: useMutation(
      act((id: string) =>
        removed(api.DELETE("/api/clocks/{id}", { params: { path: { id } } })).catch((e) => {
          if (!again(e)) throw e;
          return later({ do: "stop", id });
        }),
      ),
    ),
    settle: useMutation(act((body: Schemas["ClockSettled"]) => answer(api.POST("/api/clocks/settle", { body })))),
    air: useMutation(act((body: Schemas["ClockAir"]) => answer(api.POST("/api/clocks/air", { body })))),
  };
}

const LETTERS = "abcdefghijklmnopqrstuvwxyz0123456789";

/** newClockID is an id made here, so that a start sent twice counts once. */
export const newClockID = () =>
  Array.from(crypto.getRandomValues(new Uint8Array(16)), (b) => LETTERS[b % LETTERS.length]).join("");

const two = (n: number) => String(n).padStart(2, "0");

/** spell writes seconds as on a clock: 4:05, 1:04:05, 2 d 3 h. */
export function spell(seconds: number): string {
  const s = Math.max(0, Math.ceil(Math.abs(seconds) - 0.05));
  const d = Math.floor(s / 86400);
  const h = Math.floor(s / 3600);
  const m = Math.floor(s / 60) % 60;
  if (d >= 2) return `${d} d ${h % 24} h`;
  if (h) return `${h}:${two(m)}:${two(s % 60)}`;
  return `${m}:${two(s % 60)}`;
}
