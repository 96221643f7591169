import type { Cell, Schedule } from './table';

/** A text that a table program would take for a formula. */
const formula = /^[=+\-@\t\r]/;
const needsQuotes = /[",\r\n]/;

/** A cell: numbers as they are, texts quoted where they have to be; what begins like a formula stays a text. */
function cellText(cell: Cell): string {
  if (cell === null) return '';
  if (typeof cell === 'number') return Number.isFinite(cell) ? String(cell) : '';
  const text = formula.test(cell) ? `'${cell}` : cell;
  return needsQuotes.test(text) ? `"${text.replace(/"/g, '""')}"` : text;
}

/** A schedule as CSV (RFC 4180), UTF-8 with a byte order mark, so that table programs read its letters. */
export function csvOf({ columns, rows }: Schedule): string {
  const head = columns.map(({ head: name, unit }) => cellText(unit === '' ? name : `${name} [${unit}]`)).join(',');
  return `\uFEFF${[head, ...rows.map((row) => row.map(cellText).join(','))].join('\r\n')}\r\n`;
}
