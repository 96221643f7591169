/** Capital letters; without I and O, which look like digits, 24. */
const alphabet = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';
const clear = alphabet.replace(/[IO]/g, '');

/** The n-th label of a row of letters: A, B, ... Z, AA, AB, ... @param skip whether I and O are left out */
export function letterLabel(n: number, skip = true): string {
  const letters = skip ? clear : alphabet;
  let label = '';
  for (let rest = n; rest >= 0; rest = Math.floor(rest / letters.length) - 1)
    label = letters[rest % letters.length] + label;
  return label;
}

/** A label not yet used: a number for lines that run up the plan, letters for those that run across. */
export function proposeLabel(upright: boolean, used: ReadonlySet<string>): string {
  for (let n = 0; ; n += 1) {
    const label = upright ? String(n + 1) : letterLabel(n);
    if (!used.has(label)) return label;
  }
}
