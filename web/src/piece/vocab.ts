import { useQuery } from "@tanstack/react-query";
import { createContext, useContext } from "react";
import { answer, api, type Schemas, type Step, type Vocab } from "../api/client";

export function useVocabQuery() {
  return useQuery({ queryKey: ["vocab"], queryFn: () => answer(api.GET("/api/vocab")), staleTime: Infinity });
}

const empty = {} as Vocab;
export const VocabContext = createContext<Vocab>(empty);

/** useVocab is every id with its meaning; it stands ready inside a piece. */
export const useVocab = () => useContext(VocabContext);

type Word = { id: string; name: string };

export function nameOf(words: Word[] | undefined, id: string | undefined): string {
  return words?.find((w) => w.id === id)?.name ?? id ?? "";
}

/** stepTitle says what a step is, in a few words. */
export function stepTitle(v: Vocab, s: Step): string {
  const kind = nameOf(v.steps, s.do);
  switch (s.do) {
    case "clean":
      return nameOf(v.cleaners, s.with);
    case "abrade":
      return s.how === "pad" || !s.grit ? "Scuff with a fine pad" : `Sand with ${s.grit}`;
    case "coat":
      return nameOf(v.products, s.product);
    case "wait":
      return `Wait ${hours(s.hours ?? 0)}`;
    case "effect":
      return nameOf(v.effects, s.effect);
    case "fill":
      return nameOf(v.fillers, s.with);
    case "strip":
      return `Strip ${nameOf(v.strips, s.how)}`;
    case "remove":
      return `Take off ${s.what ?? ""}`;
    default:
      return kind;
  }
}

/** stepNotes are the particulars of a step that its title leaves out; waits is what the check makes of a wait left open. */
export function stepNotes(v: Vocab, s: Step, waits?: number): string {
  const out: string[] = [];
  if (s.do === "clean") {
    if (s.passes && s.passes > 1) out.push(`${s.passes} passes`);
    const rinses = v.cleaners.find((c) => c.id === s.with)?.rinses ?? 0;
    if (s.rinse) out.push("rinsed");
    else if (rinses > 0) out.push("not rinsed");
  }
  if (s.do === "abrade") {
    if (s.how !== "pad" && s.how) out.push(nameOf(v.hows, s.how));
    if (s.through) out.push("through to the bare material");
  }
  if (s.do === "coat") {
    const n = s.coats ?? 1;
    out.push(n === 1 ? "1 coat" : `${n} coats`);
    if (s.scope && s.scope !== "all") out.push(`on ${nameOf(v.scopes, s.scope)}`);
    const each = n === 1 ? "" : " after each";
    if (s.wait_h !== undefined) out.push(`wait ${hours(s.wait_h)}${each}`);
    else if (waits) out.push(`wait ${hours(waits)}${each}, the earliest here`);
    else out.push("wait as the air allows");
    if (s.method && s.method !== "brush") out.push(`by ${nameOf(v.methods, s.method).toLowerCase()}`);
    if (s.additive)
      out.push(`bonding additive ${s.additive.ratio} : 1${s.additive.coats === "first" ? ", first coat only" : ""}`);
    if (s.thin_pct) out.push(`thinned by ${s.thin_pct} %`);
    if (s.water_ratio) out.push(`${s.water_ratio} of water to 1`);
    if (s.sheen) out.push(nameOf(v.gloss, s.sheen));
  }
  if (s.do === "effect") {
    if (s.resist) out.push(`over ${nameOf(v.resists, s.resist)} in patches`);
    if (s.heat) out.push("with warm air");
    if (s.wetted) out.push("wetted");
    if (s.grit) out.push(`with ${s.grit}`);
    if (s.share) out.push(`${Math.round(s.share * 100)} % of it`);
  }
  if ((s.do === "mask" || s.do === "repair") && s.what) out.push(s.what);
  return out.join(", ");
}

export function hours(h: number): string {
  if (h > 0 && h < 1) return `${Math.round(h * 60)} min`;
  if (h >= 72) return `${Number((h / 24).toFixed(1))} days`;
  return `${Number(h.toFixed(h < 10 ? 1 : 0))} h`;
}

/** waitsOf is how long each coat step of a judged plan is left. */
export function waitsOf(section: Schemas["Section"] | undefined): Map<number, number> {
  const out = new Map<number, number>();
  for (const l of section?.layers ?? []) {
    const waits = l.from_h ?? l.waits_h;
    if (l.step && waits) out.set(l.step, Math.max(waits, out.get(l.step) ?? 0));
  }
  return out;
}

/** LEVELS are the words for how much of something there is, from 0. */
export const LEVELS = ["none", "light", "marked", "heavy"];

/** soilsSay lists what lies on a surface, as "marked grease, light dust". */
export function soilsSay(v: Vocab, soils: Schemas["Level"][]): string {
  return soils.map((s) => `${LEVELS[s.level] ?? ""} ${nameOf(v.soils, s.id)}`).join(", ");
}
