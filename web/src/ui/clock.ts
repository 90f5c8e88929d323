// One clock for all: days are those of the workshop, which is where the browser is.

const two = (n: number) => String(n).padStart(2, "0");

/** dayOf is a day as files write it. */
export const dayOf = (d: Date) => `${d.getFullYear()}-${two(d.getMonth() + 1)}-${two(d.getDate())}`;

/** localOf is a moment as the clock on the wall shows it: 2026-11-24T14:05. */
export function localOf(at: string | number): string {
  const d = new Date(at);
  return `${dayOf(d)}T${two(d.getHours())}:${two(d.getMinutes())}`;
}

/** today is the day that it is here. */
export const today = () => dayOf(new Date());

/** daysAfter is the day a number of days after another. */
export function daysAfter(day: string, n: number): string {
  const [y = 0, m = 1, d = 1] = day.split("-").map(Number);
  return dayOf(new Date(y, m - 1, d + n));
}
