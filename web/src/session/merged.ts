const isObject = (x: unknown): x is Record<string, unknown> => typeof x === "object" && x !== null;

/**
 * merged merges two changes of the same base: where only one has changed something, that; where both have changed the
 * same place, the later one. What is unchanged must be the very same object.
 */
export function merged<T>(base: unknown, first: unknown, later: T): T {
  if (later === base) return first as T;
  if (first === base || !isObject(base) || !isObject(first) || !isObject(later)) return later;
  if (Array.isArray(later)) {
    if (!Array.isArray(base) || !Array.isArray(first)) return later;
    if (base.length !== first.length || base.length !== later.length) return later;
    return later.map((x, i) => merged(base[i], first[i], x)) as T;
  }
  const out: Record<string, unknown> = {};
  for (const k of new Set([...Object.keys(first), ...Object.keys(later)])) {
    const v = merged(base[k], first[k], (later as Record<string, unknown>)[k]);
    if (v !== undefined) out[k] = v;
  }
  return out as T;
}
