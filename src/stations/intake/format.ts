/** A size of a file for people. */
export function bytes(n: number): string {
  if (n < 1000) return `${n} bytes`;
  return n < 1e6 ? `${(n / 1e3).toFixed(n < 1e4 ? 1 : 0)} kB` : `${(n / 1e6).toFixed(n < 1e8 ? 1 : 0)} MB`;
}

export const count = (n: number, noun: string): string => `${n.toLocaleString('en')} ${noun}${n === 1 ? '' : 's'}`;
