import type { Cell, Schedule } from '../schedules/table';
import { letters, pens, type Mark, type Sheet } from './sheet';

/** A page standing on its shorter side, millimetres (ISO 216). */
const page = { width: 210, height: 297, margin: 15 } as const;
const { small, usual, large } = letters;
/** From one line to the next, and a letter's mean width by its capital's height. */
const [lead, letterWidth] = [4, 0.85];
/** Columns are at most as wide as so many letters before their texts are broken. */
const widest = 60;
const inside = page.width - 2 * page.margin;

/** Five figures of a number tell what a reader needs; workbooks have all of them. */
function figure(value: number): string {
  const size = Math.abs(value);
  if (size >= 1000) return value.toFixed(0);
  return String(Number(value.toFixed(size >= 100 ? 1 : 2)));
}

const textOf = (cell: Cell): string => {
  if (cell === null) return '';
  return typeof cell === 'number' ? figure(cell) : cell.replace(/\s+/g, ' ');
};

/** A text in lines of at most so many letters, broken between words, and within those that are longer. */
function broken(text: string, most: number): string[] {
  const lines: string[] = [];
  let line = '';
  for (const word of text.split(' ')) {
    let rest = word;
    if (line !== '' && line.length + 1 + rest.length > most) {
      lines.push(line);
      line = '';
    }
    while (rest.length > most) {
      lines.push(rest.slice(0, most));
      rest = rest.slice(most);
    }
    line = line === '' ? rest : `${line} ${rest}`;
  }
  return [...lines, line];
}

/** How many letters each column has: as its longest text, together no wider than the page. */
function widthsOf(texts: readonly (readonly string[])[], columns: number): number[] {
  const room = Math.floor(inside / (small * letterWidth)) - 2 * columns;
  const wanted = Array.from({ length: columns }, (_, i) =>
    Math.min(widest, Math.max(2, ...texts.map((row) => (row[i] ?? '').length))),
  );
  // Where there is too little room the longest are cut down to one length, and short ones stay whole.
  let most = widest;
  while (most > 2 && wanted.reduce((sum, one) => sum + Math.min(one, most), 0) > room) most -= 1;
  return wanted.map((one) => Math.min(one, most));
}

/** Pages that are filled from above. */
class Pages {
  readonly sheets: { marks: Mark[] }[] = [];
  private y: number = page.height;

  constructor(private readonly title: string) {}

  /** Room for something so high: on this page, or on the next. @returns whether a page was begun */
  take(height: number): { y: number; begun: boolean } {
    const begun = this.y + height > page.height - page.margin;
    if (begun) {
      this.sheets.push({ marks: [] });
      this.text(page.margin, page.margin, this.title, usual);
      this.text(page.width - page.margin, page.margin, String(this.sheets.length), usual, 'end');
      this.y = page.margin + 2 * lead;
    }
    const { y } = this;
    this.y += height;
    return { y, begun };
  }

  text(x: number, y: number, text: string, height: number, anchor: 'start' | 'end' = 'start', bold = false): void {
    const mark: Mark = { kind: 'text', at: [x, y], text, height, anchor, turn: 0, ...(bold ? { bold: true } : {}) };
    this.sheets[this.sheets.length - 1].marks.push(mark);
  }

  rule(y: number): void {
    const points: Mark & { kind: 'line' } = {
      kind: 'line',
      points: [
        [page.margin, y],
        [page.width - page.margin, y],
      ],
      closed: false,
      stroke: pens.fine,
    };
    this.sheets[this.sheets.length - 1].marks.push(points);
  }
}

function putTable(pages: Pages, { name, columns, rows }: Schedule): void {
  const heads = columns.map(({ head, unit }) => (unit === '' ? head : `${head} [${unit}]`));
  const texts = rows.map((row) => row.map(textOf));
  const widths = widthsOf([heads, ...texts], columns.length);
  const figures = columns.map((_, i) => rows.length > 0 && rows.every((row) => typeof row[i] !== 'string'));
  const line = (cells: readonly string[], bold: boolean, again: boolean): void => {
    const parts = cells.map((cell, i) => broken(cell, widths[i]));
    const high = Math.max(1, ...parts.map(({ length }) => length)) * lead * 0.8 + 1.2;
    const { y, begun } = pages.take(high);
    if (begun && again) {
      // The head stands on each page that its table goes on to.
      line(heads, true, false);
      line(cells, bold, false);
      return;
    }
    let x = page.margin;
    parts.forEach((part, i) => {
      const wide = (widths[i] + 2) * small * letterWidth;
      const at = figures[i] ? x + wide - 2 * small : x;
      part.forEach((text, k) =>
        pages.text(at, y + 2 + k * lead * 0.8, text, small, figures[i] ? 'end' : 'start', bold),
      );
      x += wide;
    });
    if (bold) pages.rule(y + high - 1.2);
  };
  // A title is not left alone beneath a page.
  const { y } = pages.take(5 * lead);
  pages.take(-2.5 * lead);
  pages.text(page.margin, y + 1.4 * lead, name, usual, 'start', true);
  line(heads, true, false);
  for (const row of texts) line(row, false, true);
}

/** A report: what it is of, then tables one after another over as many upright pages of A4 as they take. */
export function tableSheets(title: string, lines: readonly string[], tables: readonly Schedule[]): Sheet[] {
  const pages = new Pages(title);
  const { y } = pages.take(3 * lead);
  pages.text(page.margin, y + lead, title, large, 'start', true);
  for (const text of lines)
    for (const part of broken(text, Math.floor(inside / (usual * letterWidth)))) {
      const { y: at } = pages.take(lead);
      pages.text(page.margin, at + 2, part, usual);
    }
  for (const table of tables) if (table.rows.length > 0) putTable(pages, table);
  return pages.sheets.map(({ marks }, i) => ({
    name: `${title}, ${i + 1}`,
    width: page.width,
    height: page.height,
    marks,
  }));
}
