import { useStudio } from "../api/studio";
import { localOf } from "./clock";

// Everything is stored in metric units; these convert figures for display and typing.

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

const CM_PER_IN = 2.54;

/** sixteenths writes inches as on a ruler, as 17 1/2. */
function sixteenths(inches: number): string {
  const n = Math.round(inches * 16);
  let [top, bottom] = [n % 16, 16];
  while (top > 0 && top % 2 === 0) [top, bottom] = [top / 2, bottom / 2];
  const whole = Math.floor(n / 16);
  if (top === 0) return `${whole}`;
  return whole ? `${whole} ${top}/${bottom}` : `${top}/${bottom}`;
}

export const sizes = (cm: number[], u: Units) =>
  `${cm.map((x) => (u === "us" ? sixteenths(x / CM_PER_IN) : `${round(x, 1)}`)).join(" × ")} ${u === "us" ? "in" : "cm"}`;

// Sizes too small for a tape measure: holes, gaps, cracks.
export const smallUnit = (u: Units) => (u === "us" ? "in" : "mm");
export const smallShown = (mm: number, u: Units) => (u === "us" ? round(mm / 10 / CM_PER_IN, 3) : mm);
export const smallKept = (t: number, u: Units) => (u === "us" ? round(t * 10 * CM_PER_IN, 2) : t);
export const small = (mm: number, u: Units) => `${smallShown(mm, u)} ${smallUnit(u)}`;
export const longUnit = (u: Units) => (u === "us" ? "in" : "cm");
export const longShown = (cm: number, u: Units) => (u === "us" ? round(cm / CM_PER_IN, 2) : cm);
export const longKept = (t: number, u: Units) => (u === "us" ? round(t * CM_PER_IN, 3) : t);

// Amounts of paint: litres, or fluid ounces; and what a litre covers.
const FLOZ_PER_L = 33.814022702;
const FT2_PER_QT = 10.186767; // of a square metre per litre
export const volumeUnit = (u: Units) => (u === "us" ? "fl oz" : "l");
/** perLitre is how many of the unit a litre is. */
export const perLitre = (u: Units) => (u === "us" ? FLOZ_PER_L : 1);
export const coverUnit = (u: Units) => (u === "us" ? "sq ft per quart" : "m² per litre");
export const perCover = (u: Units) => (u === "us" ? FT2_PER_QT : 1);
const G_PER_OZ = 28.349523125;
export const weightUnit = (u: Units) => (u === "us" ? "oz" : "g");
export const perGram = (u: Units) => (u === "us" ? 1 / G_PER_OZ : 1);
/** volume writes an amount while it is being changed; the server words what is saved. */
export const volume = (l: number, u: Units) =>
  u === "us" ? `${round(l * FLOZ_PER_L, 1)} fl oz` : l < 1 ? `${Math.round(l * 1000)} ml` : `${round(l, 2)} l`;

const UM_PER_MIL = 25.4;
export const film = (um: number, u: Units) => (u === "us" ? `${round(um / UM_PER_MIL, 1)} mil` : `${round(um, 0)} µm`);

/** unbroken keeps each number on one line with its unit. */
export const unbroken = (says: string) => says.replace(/(\d) (?=\S)/g, "$1\u00a0");

// Counts and dates. The server writes spans of time.

/** count says how many there are of something: 1 zone, 3 zones. */
export const count = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;

const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];

const AND = new Intl.ListFormat("en-GB", { type: "conjunction" });

/** list joins names as in a sentence: top, doors and plinth. */
export const list = (names: string[]) => AND.format(names);

/** date writes a day given as 2026-01-02: 2 Jan 2026, or Jan 2, 2026 in US units. */
export function date(day: string, u: Units): string {
  const [, y, m, d] = /^(\d{4})-(\d\d)-(\d\d)/.exec(day) ?? [];
  const month = MONTHS[Number(m) - 1];
  if (!month) return day;
  return u === "us" ? `${month} ${Number(d)}, ${y}` : `${Number(d)} ${month} ${y}`;
}

/** clock writes a moment given as 2026-01-02T14:05 as date and time. */
export const clock = (at: string, u: Units) => `${date(at, u)}, ${hour(at, u)}`;

/** hour writes the time of day of such a moment: 14:05, or 2:05 pm in US units. */
export function hour(at: string, u: Units): string {
  const [, h, minutes] = /T(\d\d):(\d\d)/.exec(at) ?? [];
  if (!h) return at;
  return u === "us" ? `${Number(h) % 12 || 12}:${minutes} ${Number(h) < 12 ? "am" : "pm"}` : `${h}:${minutes}`;
}

const WEEK = ["Sun", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat"];
const DAY = 24 * 60 * 60_000;

/** when is a moment as people say it: 14:20 today, Tue 09:00, or a date. */
export function when(at: string, now: number, u: Units): string {
  const local = localOf(at);
  const time = hour(local, u);
  const midnight = (x: Date) => new Date(x.getFullYear(), x.getMonth(), x.getDate()).getTime();
  const d = new Date(at);
  const days = Math.round((midnight(d) - midnight(new Date(now))) / DAY);
  if (days === 0) return time;
  if (days === 1) return `tomorrow ${time}`;
  if (days === -1) return `yesterday ${time}`;
  if (days > 0 && days < 7) return `${WEEK[d.getDay()]} ${time}`;
  return days > 0 ? date(local, u) : clock(local, u);
}
