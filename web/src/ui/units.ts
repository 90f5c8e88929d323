import { useStudio } from "../api/studio";

// Everything is kept in metric units; these turn figures into the studio's for the eye and back from its hand.

export type Units = "metric" | "us";

export const useUnits = (): Units => useStudio()?.units ?? "metric";

const round = (x: number, digits: number) => Number(x.toFixed(digits));

export const tempUnit = (u: Units) => (u === "us" ? "°F" : "°C");
export const tempShown = (c: number, u: Units) => (u === "us" ? round((c * 9) / 5 + 32, 1) : c);
export const tempKept = (t: number, u: Units) => (u === "us" ? round(((t - 32) * 5) / 9, 2) : t);
export const temp = (c: number, u: Units) => `${round(tempShown(c, u), u === "us" ? 0 : 1)} ${tempUnit(u)}`;

const M2_PER_FT2 = 0.09290304;
export const area = (m2: number, u: Units) =>
  u === "us" ? `${Number((m2 / M2_PER_FT2).toPrecision(3))} sq ft` : `${Number(m2.toPrecision(3))} m²`;

const UM_PER_MIL = 25.4;
export const film = (um: number, u: Units) => (u === "us" ? `${round(um / UM_PER_MIL, 1)} mil` : `${round(um, 0)} µm`);
