/** equalProps tells whether two sets of props have the very same values. */
export const equalProps = <P extends object>(a: P, b: P) => (Object.keys(a) as (keyof P)[]).every((k) => a[k] === b[k]);
