import { distance, type Point } from '@/core/geometry/vector';
import type { ReadModel } from '@/core/handover/model/readModel';
import type { Axis } from './derive/axes';
import { ringsOf } from './derive/patches';
import { tributaryOf, type Carrier, type Patch } from './derive/tributary';
import { innerAt, type CaseResult } from './solve/solve';
import type { StructureTrial } from './trial';

/** What a column carries at its foot on one storey: as it was calculated, and by hand. Newtons. */
export interface StoreyLoad {
  element: string;
  level: string;
  /** Compression at its foot. */
  carried: number;
  /** What lies above times the share of the floors that is nearest to it. */
  byHand: number;
  /** That share of its storey's floor, square metres. */
  area: number;
}

/** Columns that stand on one another, from the highest down. */
export interface ColumnLine {
  position: Point;
  storeys: StoreyLoad[];
}

/** Columns stand on one another within this, metres. */
const aligned = 0.3;

/** Where columns stand over one another: each line of them from the highest down. */
function linesOf(axes: readonly Axis[]): number[][] {
  const columns = [...axes.keys()]
    .filter((i) => axes[i].kind === 'column')
    .sort((a, b) => axes[b].start[2] - axes[a].start[2]);
  const lines: number[][] = [];
  const open = new Map<string, number[][]>();
  const cell = (x: number): number => Math.floor(x / aligned);
  for (const i of columns) {
    const [x, y] = axes[i].start;
    const near = [-1, 0, 1].flatMap((dx) =>
      [-1, 0, 1].flatMap((dy) => open.get(`${cell(x) + dx}/${cell(y) + dy}`) ?? []),
    );
    const line = near.find((own) => {
      const last = axes[own[own.length - 1]];
      return Math.hypot(last.start[0] - x, last.start[1] - y) <= aligned && last.start[2] > axes[i].start[2];
    });
    if (line !== undefined) line.push(i);
    else {
      const made = [i];
      lines.push(made);
      const key = `${cell(x)}/${cell(y)}`;
      open.set(key, [...(open.get(key) ?? []), made]);
    }
  }
  return lines;
}

/** Which share of each slab is nearest to each column or wall that stands beneath it, by its axis. Square metres. */
function sharesByHand({ structure }: StructureTrial): Map<number, Map<number, number>> {
  const { axes } = structure.skeleton;
  const shares = new Map<number, Map<number, number>>();
  structure.slabs.forEach((slab, s) => {
    if (slab.ground || slab.groundFloor) return;
    const beneath = [...axes.keys()].filter((i) => axes[i].kind !== 'beam' && endsUnder(axes[i], slab.z));
    const carriers = beneath.map((i): Carrier => {
      const { start, line } = axes[i];
      const at: Point = [start[0], start[1]];
      return { axis: i, a: line?.[0] ?? at, b: line?.[1] ?? at, cuts: [] };
    });
    if (carriers.length === 0) return;
    const take = ({ carrier, area }: Patch): void => {
      const own = shares.get(beneath[carrier]) ?? new Map<number, number>();
      own.set(s, (own.get(s) ?? 0) + area);
      shares.set(beneath[carrier], own);
    };
    tributaryOf(ringsOf(slab.outline, slab.holes), carriers, { overhang: Infinity }, { take, lose: () => undefined });
  });
  return shares;
}

/** Something that stands reaches up to a floor where it ends this close to its top, metres. */
const reaches = 1;
const endsUnder = ({ start, end }: Axis, z: number): boolean =>
  Math.abs(Math.max(start[2], end[2]) - z) <= reaches && Math.min(start[2], end[2]) < z - reaches;

/** What acts downwards between two heights, newtons. */
function actingBetween(
  { structure: { frame, loads } }: StructureTrial,
  factors: Record<string, number>,
  low: number,
  high: number,
): number {
  let sum = 0;
  const at = (member: number, along: number): number => {
    const [a] = frame.members[member].ends;
    return a[2] + frame.members[member].axes[0][2] * along;
  };
  for (const { id, spread, places } of loads) {
    const factor = factors[id] ?? 0;
    const take = (z: number, down: number): void => {
      if (z > low && z <= high) sum -= factor * down;
    };
    for (const { member, from, to, force } of spread)
      take(at(member, (from + to) / 2), ((force[0][2] + force[1][2]) / 2) * (to - from));
    for (const { member, at: along, force } of places) take(at(member, along), force[2]);
  }
  return sum;
}

/**
 * Each line of columns taken down through the storeys for one case: as calculated beside a count by hand, in which each
 * floor's loads, with the weight of what stands between, go to the columns and walls by the nearest part of the floor.
 */
export function takeDown(trial: StructureTrial, result: CaseResult, model: ReadModel): ColumnLine[] {
  const { structure, solution } = trial;
  const { axes, pieces } = structure.skeleton;
  const shares = sharesByHand(trial);
  const factors = structure.combinations.find(({ id }) => id === result.id)?.factors ?? { [result.id]: 1 };
  const tops = [
    ...new Set(structure.slabs.filter(({ ground, groundFloor }) => !ground && !groundFloor).map(({ z }) => z)),
  ].sort((a, b) => a - b);
  const perArea = structure.slabs.map((slab) => {
    const i = tops.indexOf(slab.z);
    if (i < 0) return 0;
    const floorArea = [...shares.values()].reduce(
      (sum, own) => sum + [...own].reduce((all, [s, area]) => (structure.slabs[s].z === slab.z ? all + area : all), 0),
      0,
    );
    const acting = actingBetween(
      trial,
      factors,
      i === 0 ? -Infinity : tops[i - 1],
      i + 1 === tops.length ? Infinity : tops[i],
    );
    return floorArea === 0 ? 0 : acting / floorArea;
  });
  const levels = new Set(model.levels.map(({ id }) => id));
  return linesOf(axes).map((line) => {
    let byHand = 0;
    const storeys = line.map((i): StoreyLoad => {
      const own = [...(shares.get(i) ?? [])];
      byHand += own.reduce((sum, [s, area]) => sum + area * perArea[s], 0);
      const [foot] = pieces[i];
      const carried = solution.memberSound(foot.member) ? -innerAt(structure.frame, result, foot.member, 0)[0] : NaN;
      return {
        element: axes[i].element,
        level: levels.has(axes[i].level) ? axes[i].level : '',
        carried,
        byHand,
        area: own.reduce((sum, [, area]) => sum + area, 0),
      };
    });
    const { start } = axes[line[line.length - 1]];
    return { position: [start[0], start[1]], storeys };
  });
}

/** The line of columns that holds an element; null where none does. */
export const lineOf = (lines: readonly ColumnLine[], element: string): ColumnLine | null =>
  lines.find(({ storeys }) => storeys.some((storey) => storey.element === element)) ?? null;

/** The line of columns nearest to a point in plan. */
export const lineNear = (lines: readonly ColumnLine[], p: Point): ColumnLine | null =>
  lines.reduce<ColumnLine | null>(
    (best, line) => (best === null || distance(line.position, p) < distance(best.position, p) ? line : best),
    null,
  );
