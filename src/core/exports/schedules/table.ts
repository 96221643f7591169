/** A number with as many figures as it has, a text, or nothing. */
export type Cell = number | string | null;

/** A table of a model: its columns with their units, and its rows. */
export interface Schedule {
  name: string;
  columns: readonly { head: string; unit: string }[];
  rows: readonly (readonly Cell[])[];
}

/** Beyond a micrometre a length is rounding. */
export const rounded = (value: number): number => Number(value.toFixed(6)) + 0;

/** A column's head, with its unit where it has one. */
export type Head = string | readonly [head: string, unit: string];

export const columnsOf = (...heads: readonly Head[]): Schedule['columns'] =>
  heads.map((one) => (typeof one === 'string' ? { head: one, unit: '' } : { head: one[0], unit: one[1] }));
