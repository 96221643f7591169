import { Matrix, solve } from 'ml-matrix';
import type { ReadModel } from '@/core/handover/model/readModel';
import { readModel } from '@/core/handover/model/readModel';
import { deriveStructure } from '@/core/structure/derive/derive';
import { factorise } from '@/core/structure/solve/factor';
import { equationsOf, solveFrame } from '@/core/structure/solve/solve';

/** A building of columns and beams on a grid, as wide as it is deep and half as high, of about so many members. */
export function makeBuilding(members: number, slabs: boolean): ReadModel {
  // A bay has a column and two beams.
  const bays = Math.max(2, Math.round(Math.cbrt((members / 3) * 4)));
  const storeys = Math.max(1, Math.round(members / (3 * bays * bays)));
  const [span, height] = [6, 3.5];
  const levels = Array.from({ length: storeys + 1 }, (_, i) => ({
    id: `L${i}`,
    name: `Level ${i}`,
    elevation: i * height,
    height,
  }));
  const section = { shape: 'rectangle', width: 0.4, depth: 0.5 };
  const nodes = Array.from({ length: (bays + 1) ** 2 }, (_, i) => [i % (bays + 1), Math.floor(i / (bays + 1))]);
  const storeysUp = Array.from({ length: storeys }, (_, i) => i);
  const columns = storeysUp.flatMap((s) =>
    nodes.map(([x, y]) => ({ id: `C${s}/${x}/${y}`, level: `L${s}`, position: [x * span, y * span], section })),
  );
  const beams = storeysUp.flatMap((s) =>
    nodes.flatMap(([x, y]) => {
      const z = (s + 1) * height;
      const at = (dx: number, dy: number) => [(x + dx) * span, (y + dy) * span, z];
      const beam = (way: string, dx: number, dy: number) => ({
        id: `B${way}${s}/${x}/${y}`,
        level: `L${s}`,
        start: at(0, 0),
        end: at(dx, dy),
        section,
      });
      return [...(x < bays ? [beam('x', 1, 0)] : []), ...(y < bays ? [beam('y', 0, 1)] : [])];
    }),
  );
  const edge = bays * span;
  const outline = [
    [0, 0],
    [edge, 0],
    [edge, edge],
    [0, edge],
  ];
  const floors = storeysUp.map((s) => ({ id: `S${s}`, level: `L${s + 1}`, outline, holes: [], thickness: 0.2 }));
  const read = readModel(
    JSON.stringify({
      format: 'zircon-frame-model',
      version: 1,
      levels,
      columns,
      beams,
      slabs: slabs ? floors : [],
      loads: slabs ? floors.map(({ id }) => ({ case: 'Q', kind: 'area', slab: id, q: -3000 })) : [],
    }),
  );
  if (!read.ok) throw new Error(read.message);
  return read.value;
}

const timed = <T>(work: () => T): { value: T; seconds: number } => {
  const begun = performance.now();
  const value = work();
  return { value, seconds: (performance.now() - begun) / 1000 };
};

const cell = (text: string | number) => String(text).padStart(12);

/** Beyond this many unknowns a dense matrix is not made. */
const mostDense = 2500;

/** The same equations by a dense solver of a public library. @returns seconds */
function denseSeconds(model: ReadModel): number | null {
  const { elements, count } = equationsOf(deriveStructure(model).frame);
  if (count > mostDense) return null;
  const k = Matrix.zeros(count, count);
  for (const { unknowns, matrix } of elements)
    unknowns.forEach((a, i) => unknowns.forEach((b, j) => k.set(a, b, k.get(a, b) + matrix[i * unknowns.length + j])));
  return timed(() => solve(k, Matrix.ones(count, 1))).seconds;
}

/** `./run bench structure [members ...]`: a trial's time and memory, and how they grow. Ratios count. */
export function benchStructure(sizes: readonly number[]): number {
  for (const slabs of [true, false]) {
    console.log(`\n${slabs ? 'with slabs that keep their plan' : 'bare frames, six freedoms a node'}`);
    console.log(['members', 'unknowns', 'derive s', 'solve s', 'factor MB', 'dense ratio'].map(cell).join(''));
    for (const size of sizes) {
      const model = makeBuilding(size, slabs);
      const derived = timed(() => deriveStructure(model));
      const solved = timed(() => solveFrame(derived.value.frame, derived.value.loads));
      const { elements, groups } = equationsOf(derived.value.frame);
      const own = size === Math.min(...sizes) ? timed(() => factorise(elements, groups)).seconds : null;
      const dense = own === null ? null : denseSeconds(model);
      const { unknowns, size: numbers } = solved.value;
      console.log(
        [
          derived.value.frame.members.length,
          unknowns,
          derived.seconds.toFixed(2),
          solved.seconds.toFixed(2),
          ((numbers * 8) / 1e6).toFixed(1),
          own === null || dense === null ? '' : (dense / own).toFixed(0),
        ]
          .map(cell)
          .join(''),
      );
    }
  }
  return 0;
}
