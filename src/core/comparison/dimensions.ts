import { placer, type Placement } from '@/core/datum/placement';
import { agrees, type ReadLength } from '@/core/datum/dimensionCheck';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { dot, nearestOnPiece, distance, subtract, type Point } from '@/core/geometry/vector';
import { gridPoints } from '@/core/kinds/grid';
import { outlinesOf } from '@/core/kinds/kinds';
import type { Hosted } from './drift';
import { piecesOf } from './strokes';

/** A dimension of a drawing beside the model: what is written, and what lies between the same two things. Metres. */
export interface ModelDimension {
  handle: string;
  text: string;
  written: number;
  /** Between the things of the model; null where at an end there is none. */
  modelled: number | null;
  agrees: boolean;
  /** Its ends in the project. */
  ends: [Point, Point];
  /** The elements whose sides or axes are at the ends. */
  elements: string[];
}

/** The dimensions that are measured between two things. */
export interface DimensionsBeside {
  agree: number;
  differ: ModelDimension[];
  /** With nothing of the model at an end. */
  without: ModelDimension[];
}

/** A side of an element, or a grid line, which goes on beyond its ends. */
interface Edge {
  id: string;
  a: Point;
  b: Point;
  grid: boolean;
}

/** What lies further off along a dimension than this is not what it ends at, metres. */
const reach = 0.1;
/** A dimension ends beside the things it measures, up to this far across its direction, metres. */
const beside = 1.5;
/** A side counts as across a dimension up to this sine of the angle that is missing. */
const across = 0.02;

const edgesOf = ({ row, host }: Hosted): Edge[] => {
  if (row.kind === 'grid')
    return piecesOf(gridPoints(row.shape), false).map(([a, b]) => ({ id: row.id, a, b, grid: true }));
  return outlinesOf(row, host).flatMap((ring) =>
    piecesOf(ring, true).map(([a, b]) => ({ id: row.id, a, b, grid: false })),
  );
};

/** Kinds whose sides dimensions are taken from; areas follow from them. */
const measured = new Set(['grid', 'column', 'wall', 'opening', 'beam', 'slab']);

/** Finds what of the model a dimension ends at: the nearest side across it, a grid line however far it runs. */
function finderOf(hosted: readonly Hosted[]): (end: Point, along: Point) => { id: string; at: number } | null {
  const edges = hosted.filter(({ row }) => measured.has(row.kind)).flatMap(edgesOf);
  const sides = edges.filter(({ grid }) => !grid);
  const grids = edges.filter(({ grid }) => grid);
  const index = new BoxIndex(sides, ({ a, b }) => boxOf([a, b]));
  return (end, along) => {
    let best: { id: string; at: number; off: number } | null = null;
    const offer = ({ id, a, b }: Edge) => {
      const d = subtract(b, a);
      if (Math.abs(dot(d, along)) > across * Math.hypot(...d)) return;
      const at = (dot(a, along) + dot(b, along)) / 2;
      const off = Math.abs(at - dot(end, along));
      if (off <= reach && (best === null || off < best.off)) best = { id, at, off };
    };
    for (const edge of index.around(end, beside))
      if (distance(nearestOnPiece(edge.a, edge.b, end), end) <= beside) offer(edge);
    for (const edge of grids) offer(edge);
    return best;
  };
}

/** Sets the lengths written in a drawing against the distances between the same things in the model. */
export function dimensionsBeside(
  lengths: readonly ReadLength[],
  placement: Placement,
  hosted: readonly Hosted[],
): DimensionsBeside {
  const found = finderOf(hosted);
  const at = placer(placement);
  const zero = at(0, 0);
  const told: DimensionsBeside = { agree: 0, differ: [], without: [] };
  for (const { handle, text, written, apart, ends, along } of lengths) {
    if (along === null) continue;
    const [a, b] = ends.map(([x, y]) => at(x, y));
    const turned = subtract(at(along[0], along[1]), zero);
    const size = Math.hypot(...turned);
    const way: Point = [turned[0] / size, turned[1] / size];
    const [from, to] = [found(a, way), found(b, way)];
    const dimension = { handle, text, written, ends: [a, b] as [Point, Point] };
    if (from === null || to === null) {
      const elements = [from, to].flatMap((one) => one?.id ?? []);
      told.without.push({ ...dimension, modelled: null, agrees: false, elements });
      continue;
    }
    const modelled = Math.abs(to.at - from.at);
    if (agrees(written, modelled, apart)) told.agree += 1;
    else told.differ.push({ ...dimension, modelled, agrees: false, elements: [...new Set([from.id, to.id])] });
  }
  told.differ.sort((one, other) => off(other) - off(one));
  return told;
}

const off = ({ written, modelled }: ModelDimension): number => Math.abs(written - (modelled ?? written));
