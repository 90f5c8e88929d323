/** equalProps tells whether two drawings would be of the very same things. */
export const equalProps = <P extends object>(a: P, b: P) => (Object.keys(a) as (keyof P)[]).every((k) => a[k] === b[k]);
