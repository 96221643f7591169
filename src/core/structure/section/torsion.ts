import earcut from 'earcut';
import type { Point } from '@/core/geometry/vector';
import { factorise, type Element } from '../solve/factor';

/** Corners of triangles, and the triangles by the numbers of their corners. */
interface Mesh {
  points: Point[];
  triangles: [number, number, number][];
}

/** A mesh is made finer as long as it has no more triangles than this: the constant is right to about a thousandth. */
const mostTriangles = 6000;

/**
 * Saint-Venant's torsion constant of a polygon: twice the integral of Prandtl's stress function, with linear finite
 * elements on two meshes and the limit that they lead to (Zienkiewicz and Taylor, The Finite Element Method, ch. 7).
 * @returns metres to the fourth power
 */
export function torsionOfPolygon(outline: readonly Point[]): number {
  let mesh = triangulated(outline);
  if (mesh.triangles.length === 0) return 0;
  while (mesh.triangles.length * 16 <= mostTriangles) mesh = refined(mesh);
  const [coarse, fine] = [mesh, refined(mesh)].map(twiceIntegral);
  // The error goes with the square of the size of the triangles.
  return fine + (fine - coarse) / 3;
}

function triangulated(outline: readonly Point[]): Mesh {
  const indices = earcut(outline.flat());
  const triangles: Mesh['triangles'] = [];
  for (let i = 0; i + 2 < indices.length; i += 3) triangles.push([indices[i], indices[i + 1], indices[i + 2]]);
  return { points: [...outline], triangles };
}

/** Each triangle in four, by the middles of its sides. */
function refined({ points, triangles }: Mesh): Mesh {
  const all = [...points];
  const middles = new Map<number, number>();
  const middle = (a: number, b: number): number => {
    const key = Math.min(a, b) * points.length + Math.max(a, b);
    const before = middles.get(key);
    if (before !== undefined) return before;
    all.push([(points[a][0] + points[b][0]) / 2, (points[a][1] + points[b][1]) / 2]);
    middles.set(key, all.length - 1);
    return all.length - 1;
  };
  const fine = triangles.flatMap(([a, b, c]): Mesh['triangles'] => {
    const [ab, bc, ca] = [middle(a, b), middle(b, c), middle(c, a)];
    return [
      [a, ab, ca],
      [ab, b, bc],
      [ca, bc, c],
      [ab, bc, ca],
    ];
  });
  return { points: all, triangles: fine };
}

/** Points on the border: ends of sides that belong to one triangle alone. */
function borderOf({ points, triangles }: Mesh): Uint8Array {
  const sides = new Map<number, number>();
  const eachSide = (take: (a: number, b: number, key: number) => void): void =>
    triangles.forEach((corners) =>
      corners.forEach((a, i) => {
        const b = corners[(i + 1) % 3];
        take(a, b, Math.min(a, b) * points.length + Math.max(a, b));
      }),
    );
  eachSide((_a, _b, key) => sides.set(key, (sides.get(key) ?? 0) + 1));
  const border = new Uint8Array(points.length);
  eachSide((a, b, key) => {
    if (sides.get(key) === 1) border[a] = border[b] = 1;
  });
  return border;
}

/** Twice the integral of the function whose Laplacian is -2 inside and that is zero on the border. */
function twiceIntegral(mesh: Mesh): number {
  const border = borderOf(mesh);
  const number = new Int32Array(mesh.points.length).fill(-1);
  let count = 0;
  mesh.points.forEach((_, i) => {
    if (border[i] === 0) number[i] = (count += 1) - 1;
  });
  if (count === 0) return 0;
  const load = new Float64Array(count);
  const elements: Element[] = [];
  for (const corners of mesh.triangles) {
    const element = ofTriangle(mesh, corners, number, load);
    if (element !== null) elements.push(element);
  }
  const groups = Array.from({ length: count }, (_, i) => [i]);
  const values = load.slice();
  factorise(elements, groups).solve(values);
  return values.reduce((sum, value, i) => sum + value * load[i], 0);
}

/** A triangle's part of the matrix; its part of the load, twice a third of its area a corner, is added. */
function ofTriangle(
  { points }: Mesh,
  corners: readonly [number, number, number],
  number: Int32Array,
  load: Float64Array,
): Element | null {
  const [[x1, y1], [x2, y2], [x3, y3]] = corners.map((i) => points[i]);
  const area = ((x2 - x1) * (y3 - y1) - (x3 - x1) * (y2 - y1)) / 2;
  if (area === 0) return null;
  const slopes = [
    [y2 - y3, x3 - x2],
    [y3 - y1, x1 - x3],
    [y1 - y2, x2 - x1],
  ];
  const inner = [0, 1, 2].filter((i) => number[corners[i]] >= 0);
  const matrix = new Float64Array(inner.length ** 2);
  inner.forEach((i, a) => {
    load[number[corners[i]]] += (2 * Math.abs(area)) / 3;
    inner.forEach((j, b) => {
      matrix[a * inner.length + b] = (slopes[i][0] * slopes[j][0] + slopes[i][1] * slopes[j][1]) / (4 * Math.abs(area));
    });
  });
  return { unknowns: Int32Array.from(inner, (i) => number[corners[i]]), matrix };
}
