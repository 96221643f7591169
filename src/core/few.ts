/** So many of a list are named where nobody says how many. */
const usual = 5;

/** A list in a sentence: the first few, and how many more there are. */
export const few = (list: readonly string[], most = usual, between = ', '): string =>
  list.slice(0, most).join(between) + (list.length > most ? ` and ${list.length - most} more` : '');
