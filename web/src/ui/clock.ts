// One clock for all: days are those of the workshop, which is where the browser is.

const two = (n: number) => String(n).padStart(2, "0");

/** dayOf is a day as files write it. */
export const dayOf = (d: Date) => `${d.getFullYear()}-${two(d.getMonth() + 1)}-${two(d.getDate())}`;

/** today is the day that it is here. */
export const today = () => dayOf(new Date());

/** daysAfter is the day a number of days after another. */
export function daysAfter(day: string, n: number): string {
  const [y = 0, m = 1, d = 1] = day.split("-").map(Number);
  return dayOf(new Date(y, m - 1, d + n));
}
