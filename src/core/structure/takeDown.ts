import { contains } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import { awayFromLine } from '@/core/kinds/lines';
import type { ReadModel } from '@/core/handover/model/readModel';
import type { Axis } from './derive/axes';
import type { LyingSlab } from './derive/floors';
import { ringsOf } from '@/core/geometry/ringParts';
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
    if (slab.ground) return;
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
    // Where nothing is beneath it the ground floor lies on the ground.
    const overhang = slab.groundFloor ? 0 : Infinity;
    tributaryOf(ringsOf(slab.outline, slab.holes), carriers, { overhang }, { take, lose: () => undefined });
  });
  return shares;
}

/** Something that stands reaches up to a floor where it ends this close to its top, metres. */
const reaches = 1;
const endsUnder = ({ start, end }: Axis, z: number): boolean =>
  Math.abs(Math.max(start[2], end[2]) - z) <= reaches && Math.min(start[2], end[2]) < z - reaches;

/** A floor takes what acts from the level below it up to a little above it, metres; */
const aboveFloor = 0.1;
/** within its outline and so far beside it. */
const besideFloor = 0.3;

/** What acts downwards at a floor and in the storey beneath it, newtons. */
function actingAt({ structure }: StructureTrial, slab: LyingSlab, model: ReadModel, factors: Record<string, number>) {
  const { frame, loads, slabs, skeleton } = structure;
  // Walls that carry take their own weight down themselves.
  const walls = new Set(
    skeleton.axes.flatMap(({ kind }, i) => (kind === 'wall' ? skeleton.pieces[i].map(({ member }) => member) : [])),
  );
  const below = model.levels.map(({ elevation }) => elevation).filter((z) => z < slab.z - reaches);
  const low = below.length === 0 ? -Infinity : Math.max(...below) + aboveFloor;
  const high = slabs.every(({ z }) => z <= slab.z) ? Infinity : slab.z + aboveFloor;
  const within = frame.members.map(({ ends: [a, b] }) => {
    const middle: Point = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
    const { outline } = slab;
    return contains(outline, middle) || awayFromLine([...outline, outline[0]], middle) <= besideFloor;
  });
  let sum = 0;
  for (const { id, spread, places } of loads) {
    const factor = factors[id] ?? 0;
    const take = (member: number, along: number, down: number): void => {
      const { ends, axes } = frame.members[member];
      const z = ends[0][2] + axes[0][2] * along;
      if (within[member] && z > low && z <= high) sum -= factor * down;
    };
    for (const { member, from, to, force } of spread)
      if (!walls.has(member)) take(member, (from + to) / 2, ((force[0][2] + force[1][2]) / 2) * (to - from));
    for (const { member, at, force } of places) take(member, at, force[2]);
  }
  return sum;
}

/**
 * The way to take each line of columns down through the storeys for a case: as calculated beside a count by hand, in
 * which each floor's loads, with the weight of what stands between, go to the columns and walls by the nearest part of
 * the floor.
 */
export function takingDown(trial: StructureTrial, model: ReadModel): (result: CaseResult) => ColumnLine[] {
  // What lies nearest to what is the same for every case.
  const shares = sharesByHand(trial);
  const lines = linesOf(trial.structure.skeleton.axes);
  return (result) => takeDown(trial, model, result, { shares, lines });
}

interface ByHand {
  shares: Map<number, Map<number, number>>;
  lines: number[][];
}

function takeDown(
  trial: StructureTrial,
  model: ReadModel,
  result: CaseResult,
  { shares, lines }: ByHand,
): ColumnLine[] {
  const { structure, solution } = trial;
  const { axes, pieces } = structure.skeleton;
  const factors = structure.combinations.find(({ id }) => id === result.id)?.factors ?? { [result.id]: 1 };
  const perArea = structure.slabs.map((slab, s) => {
    const floorArea = [...shares.values()].reduce((sum, own) => sum + (own.get(s) ?? 0), 0);
    return floorArea === 0 ? 0 : actingAt(trial, slab, model, factors) / floorArea;
  });
  const levels = new Set(model.levels.map(({ id }) => id));
  return lines.map((line) => {
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
