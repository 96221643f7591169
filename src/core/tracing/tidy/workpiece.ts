import { shareAlong, type Point } from '@/core/geometry/vector';
import type { ElementOf, ElementRow } from '@/core/kinds/element';
import type { Wall } from '@/core/kinds/wall';
import { openingIn } from '../restrung';

/** A wall or a beam, as tidying changes it. */
export interface TidyLine {
  row: ElementOf<'wall'> | ElementOf<'beam'>;
  start: Point;
  end: Point;
  bulge: number;
}

/** How tidying is done: which steps, how far apart things still belong together, and along which axes. */
export interface TidyOrder {
  steps: readonly TidyStep[];
  /** Metres. */
  tolerance: number;
  /** Lines within this of an axis are straightened to it, radians. */
  angle: number;
  /** The angle of the axes, radians. */
  axes: number;
  grid: readonly { start: Point; end: Point }[];
  newId: () => string;
}

export const tidySteps = [
  'doubles',
  'straighten',
  'grid',
  'ends',
  'extend',
  'overlaps',
  'cut',
  'outlines',
  'slivers',
] as const;
export type TidyStep = (typeof tidySteps)[number];

/**
 * The elements of a level while they are tidied: walls and beams by their lines, columns by their places, areas by
 * their outlines. Openings stay where they are in plan, in the wall that is there then.
 */
export class Workpiece {
  lines: TidyLine[] = [];
  columns: ElementOf<'column'>[] = [];
  areas: (ElementOf<'slab'> | ElementOf<'zone'> | ElementOf<'outdoor'>)[] = [];
  /** Openings by their walls; what they are in is told by the wall's line when they were put there. */
  private openings = new Map<string, { opening: ElementOf<'opening'>; host: Wall }[]>();
  /** What became part of another element. */
  readonly merged = new Map<string, string>();
  readonly gone = new Set<string>();
  private readonly before: ReadonlyMap<string, ElementRow>;

  constructor(rows: readonly ElementRow[]) {
    this.before = new Map(rows.map((row) => [row.id, row]));
    for (const row of rows) {
      if (row.held) continue;
      if (row.kind === 'wall' || row.kind === 'beam') {
        const { start, end } = row.shape;
        this.lines.push({ row, start, end, bulge: row.kind === 'wall' ? row.shape.bulge : 0 });
      } else if (row.kind === 'column') this.columns.push(row);
      else if (row.kind === 'slab' || row.kind === 'zone' || row.kind === 'outdoor') this.areas.push(row);
    }
    for (const row of rows) {
      const host = row.kind === 'opening' ? this.before.get(row.shape.wall) : undefined;
      if (row.kind === 'opening' && host?.kind === 'wall') this.host(row, host.shape, host.id);
    }
  }

  private host(opening: ElementOf<'opening'>, host: Wall, wall: string): void {
    const list = this.openings.get(wall);
    if (list) list.push({ opening, host });
    else this.openings.set(wall, [{ opening, host }]);
  }

  /** The openings in a line, as shares of its present length from its start. */
  openingsIn(line: TidyLine): { id: string; from: number; to: number }[] {
    if (line.row.kind !== 'wall') return [];
    const now = wallOf(line);
    const length = Math.hypot(line.end[0] - line.start[0], line.end[1] - line.start[1]);
    return (this.openings.get(line.row.id) ?? []).map(({ opening, host }) => {
      const { offset, width } = openingIn(opening.shape, host, now);
      return { id: opening.id, from: offset / length, to: (offset + width) / length };
    });
  }

  /** The opening of a line that another one would lie over: drawn twice as its wall was. */
  private openingOver(opening: ElementOf<'opening'>, host: Wall, into: TidyLine): string | null {
    const now = wallOf(into);
    const { offset, width } = openingIn(opening.shape, host, now);
    const over = (this.openings.get(into.row.id) ?? []).find((other) => {
      const there = openingIn(other.opening.shape, other.host, now);
      return offset < there.offset + there.width && there.offset < offset + width;
    });
    return over?.opening.id ?? null;
  }

  /** Takes a line away that is part of another now; its openings are in that. */
  merge(line: TidyLine, into: TidyLine): void {
    this.lines = this.lines.filter((other) => other !== line);
    this.merged.set(line.row.id, into.row.id);
    for (const { opening, host } of this.openings.get(line.row.id) ?? []) {
      const twin = this.openingOver(opening, host, into);
      if (twin === null) this.host(opening, host, into.row.id);
      else this.merged.set(opening.id, twin);
    }
    this.openings.delete(line.row.id);
  }

  /** Takes a line away that is nothing. */
  drop(line: TidyLine): void {
    this.lines = this.lines.filter((other) => other !== line);
    this.gone.add(line.row.id);
  }

  /** Parts a line at a point; openings beyond it are in the second part. */
  part(line: TidyLine, at: Point, id: string): TidyLine {
    const second: TidyLine = { row: { ...line.row, id }, start: at, end: line.end, bulge: 0 };
    const share = shareOf(line, at);
    const beyond = this.openingsIn(line).filter(({ from, to }) => (from + to) / 2 > share);
    line.end = at;
    this.lines.push(second);
    const moving = new Set(beyond.map((one) => one.id));
    const all = this.openings.get(line.row.id) ?? [];
    this.openings.set(
      line.row.id,
      all.filter(({ opening }) => !moving.has(opening.id)),
    );
    for (const { opening, host } of all) if (moving.has(opening.id)) this.host(opening, host, id);
    return second;
  }

  /** The rows that differ from what they were. */
  changed(): ElementRow[] {
    const rows: ElementRow[] = [
      ...this.lines.map(rowOf),
      ...this.columns,
      ...this.areas,
      ...this.lines.flatMap((line) => this.openingRows(line)),
    ];
    return rows.filter((row) => {
      const was = this.before.get(row.id);
      return was === undefined || (was !== row && JSON.stringify(was.shape) !== JSON.stringify(row.shape));
    });
  }

  private openingRows(line: TidyLine): ElementRow[] {
    if (line.row.kind !== 'wall') return [];
    const now = wallOf(line);
    return (this.openings.get(line.row.id) ?? []).map(({ opening, host }) => {
      const sameLine = host.start === now.start && host.end === now.end;
      const shape = sameLine ? opening.shape : openingIn(opening.shape, host, now);
      return { ...opening, shape: { ...shape, wall: line.row.id } };
    });
  }
}

const wallOf = (line: TidyLine): Wall => {
  const { row, start, end, bulge } = line;
  return row.kind === 'wall'
    ? { ...row.shape, start, end, bulge }
    : { start, end, bulge, thickness: 0, height: null, outer: false };
};

function rowOf({ row, start, end, bulge }: TidyLine): ElementRow {
  if (row.shape.start === start && row.shape.end === end) return row;
  return row.kind === 'wall'
    ? { ...row, shape: { ...row.shape, start, end, bulge } }
    : { ...row, shape: { ...row.shape, start, end } };
}

/** Where along a straight line a point lies, as a share of it. */
export const shareOf = ({ start, end }: Pick<TidyLine, 'start' | 'end'>, p: Point): number => shareAlong(start, end, p);
