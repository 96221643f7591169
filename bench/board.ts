import { asDrawn } from '@/core/datum/placement';
import { DxfReader } from '@/core/drawing/reader';
import { defaultSettings } from '@/core/patterns/settings';
import type { Point } from '@/core/geometry/vector';
import { candidateAt, takeReadings } from '@/core/reading/takeAt';
import type { Role } from '@/core/sorting/roles';
import { tidy } from '@/core/tracing/tidy/tidy';
import { tidySteps } from '@/core/tracing/tidy/workpiece';
import { flatten } from '@/core/underlay/flatten';
import { buildIndex, openIndex } from '@/core/underlay/pieces';
import { snapsNear } from '@/core/underlay/snap';
import { windowOf } from '@/core/underlay/window';
import { levelIds, makeModel } from './makeModel';
import { makePlan } from './makePlan';
import { seeded } from './mutate';
import { tiled } from './tiledPlan';

const ms = (work: () => void): number => {
  const start = process.hrtime.bigint();
  work();
  return Number(process.hrtime.bigint() - start) / 1e6;
};

const quantile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))];

function read(dxf: string) {
  const reader = new DxfReader();
  reader.push(new TextEncoder().encode(dxf));
  const result = reader.finish();
  if (!result.ok) throw new Error(result.message);
  const { drawing } = result.value;
  const primitives = flatten(drawing);
  return { drawing, primitives, index: openIndex(buildIndex(primitives)) };
}

/** Random places on the lines of a drawing, about its origin. */
const places = (xy: Float64Array, count: number): Point[] => {
  const random = seeded(11);
  return Array.from({ length: count }, () => {
    const v = Math.floor(random() * (xy.length / 2));
    return [xy[2 * v] + (random() - 0.5) * 100, xy[2 * v + 1] + (random() - 0.5) * 100];
  });
};

function snapping(entities: number): void {
  const { drawing, primitives, index } = read(makePlan(entities));
  const names = drawing.layers.map(({ name }) => name);
  const took = places(primitives.xy, 1500).map((at) =>
    ms(() => void snapsNear(primitives, index, names, at, 150, () => true)),
  );
  const [median, worst] = [quantile(took.slice(300), 0.5), quantile(took.slice(300), 0.99)];
  const sides = index.vertex.length.toLocaleString('en');
  console.log(
    `snap among ${sides} sides: ${median.toFixed(3)} ms (median), ${worst.toFixed(2)} ms (p99)   goal 0.3, 2`,
  );
}

/** How far about a place lines are looked at, drawing units; as the board does for walls. */
const lookedAt = 7000;

function taking(entities: number): void {
  const { dxf, roles } = tiled(entities);
  const { drawing, primitives, index } = read(dxf);
  const roleOf = (name: string): Role | null => (roles[name] as Role | undefined) ?? null;
  const took = places(primitives.xy, 600).map((at) =>
    ms(() => {
      const [x, y] = at;
      const box = [x - lookedAt, y - lookedAt, x + lookedAt, y + lookedAt] as [number, number, number, number];
      const items = index.tree.search(...box, (item) => item < index.vertex.length);
      const paths = Uint32Array.from(new Set(items.map((item) => index.path[item])));
      const place: Point = [(x + primitives.origin[0]) / 1000, (y + primitives.origin[1]) / 1000];
      const [near] = index.tree.neighbors(x, y, 1, Infinity, (item) => item < index.vertex.length);
      takeReadings(
        {
          drawing,
          primitives: windowOf(primitives, paths, box),
          placement: asDrawn('mm'),
          roles: drawing.layers.map(({ name }) => roleOf(name)),
          picked: { lines: new Map(), blocks: new Map() },
          accepted: [],
          settings: defaultSettings,
          zero: 0,
          linked: [],
          answers: [],
          kind: 'wall',
          own: true,
          path: paths.indexOf(index.path[near]),
        },
        candidateAt('wall', place, 0.2),
        true,
      );
    }),
  );
  const [median, p95] = [quantile(took.slice(100), 0.5), quantile(took.slice(100), 0.95)];
  console.log(
    `take in a plan of ${entities.toLocaleString('en')} entities: ${median.toFixed(1)} ms ` +
      `(median), ${p95.toFixed(1)} ms (p95)   goal p95 16`,
  );
}

const nearby = ([x, y]: Point, random: () => number): Point => [x + (random() - 0.5) / 100, y + (random() - 0.5) / 100];

function tidying(elements: number): void {
  const { model } = makeModel(elements * levelIds.length);
  const rows = [...model.index.onLevel(levelIds[0])];
  const random = seeded(3);
  // Ends a few millimetres off, as drawn by hand.
  const off = rows.map((row) =>
    row.kind === 'wall' || row.kind === 'beam'
      ? { ...row, shape: { ...row.shape, end: nearby(row.shape.end, random) } }
      : row,
  ) as typeof rows;
  let n = 0;
  const order = {
    steps: tidySteps,
    tolerance: 0.03,
    angle: 0.01,
    axes: 0,
    grid: [],
    newId: () => `n${(n += 1)}`,
  };
  let changed = 0;
  const took = ms(() => {
    changed = tidy(off, order).changed.length;
  });
  console.log(
    `tidy a level of ${rows.length.toLocaleString('en')} elements: ` +
      `${(took / 1000).toFixed(2)} s, ${changed.toLocaleString('en')} changed   goal 2 s`,
  );
}

/** `./run bench board`: what the board's tools take, beside the page. */
export function benchBoard(): number {
  taking(100_000);
  // An entity of the plan comes to about two sides.
  for (const entities of [5000, 50_000, 480_000]) snapping(entities);
  tidying(5000);
  return 0;
}
