/** named is a unique id for something of that name. */
export function named(name: string, taken: { id: string }[]): string {
  const base =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-+|-+$/g, "")
      .slice(0, 30) || "own";
  let id = base;
  for (let n = 2; taken.some((w) => w.id === id); n++) id = `${base}-${n}`;
  return id;
}
