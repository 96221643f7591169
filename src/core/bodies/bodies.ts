import { radians, type Point } from '@/core/geometry/vector';
import { columnOutlines } from '@/core/kinds/column';
import type { Contour } from '@/core/kinds/contour';
import type { ElementKind } from '@/core/kinds/element';
import { kinds } from '@/core/kinds/kinds';
import { roofHeightAt } from '@/core/kinds/roof';
import type { Building, Placed } from '@/core/resolved/building';
import { addMember } from './memberBody';
import { Shell, type Place } from './shell';
import { addOpening, addWall } from './wallBody';

/** The bodies of one kind on one level, one after another, about an origin: each three numbers a point. */
export interface BodyPart {
  kind: ElementKind;
  levelId: string;
  triangles: Float32Array;
  edges: Float32Array;
  axes: Float32Array;
  /** The elements of the model that the bodies are of, and where the numbers of each end. */
  elements: string[];
  triangleEnds: Uint32Array;
  edgeEnds: Uint32Array;
  axisEnds: Uint32Array;
}

/** The model in space. */
export interface Bodies {
  /** What all numbers are about, so that a building 80 km from zero loses nothing. */
  origin: Place;
  parts: BodyPart[];
  /** minX, minY, minZ, maxX, maxY, maxZ about the origin; null where there is nothing. */
  box: [number, number, number, number, number, number] | null;
}

/** Something to be put in space: its kind, its level and how. */
interface Task {
  kind: ElementKind;
  levelId: string;
  elementId: string;
  add: (shell: Shell) => void;
}

/** A zone is shown as its floor, so much above it, metres: else it would lie in the slab. */
const aboveFloor = 0.01;
/** An outdoor surface without height, a load on an area: as thick as a line, metres. */
const thin = 0.01;
/** How large the signs of supports, loads and luminaires are in space, metres. */
const sign = 0.4;
/** A luminaire is shown as a plate this thick, metres. */
const plate = 0.08;

/** Everything of a building that stands in space. Elements on a storey that repeats another are the other's. */
export function bodiesOf(building: Building): Bodies {
  const tasks = tasksOf(building);
  const byPart = new Map<string, Task[]>();
  for (const task of tasks) {
    const key = `${task.levelId} ${task.kind}`;
    const own = byPart.get(key);
    if (own === undefined) byPart.set(key, [task]);
    else own.push(task);
  }
  const origin = originOf(building);
  const parts = [...byPart.values()].map((own) => partOf(own, origin));
  return { origin, parts, box: boxOfParts(parts) };
}

/** Whole hundreds of metres about the first thing that stands. */
function originOf({ columns, walls, slabs, zones, outdoor, beams, roofs }: Building): Place {
  const outline = [...slabs, ...zones, ...outdoor, ...roofs][0]?.shape.outline;
  const at = columns[0]?.shape.position ?? (walls[0] ?? beams[0])?.shape.start ?? outline?.[0] ?? [0, 0];
  const round = (value: number): number => Math.round(value / 100) * 100;
  return [round(at[0]), round(at[1]), 0];
}

function partOf(tasks: readonly Task[], origin: Place): BodyPart {
  const shell = new Shell(origin);
  const [triangleEnds, edgeEnds, axisEnds] = [0, 1, 2].map(() => new Uint32Array(tasks.length));
  tasks.forEach((task, i) => {
    task.add(shell);
    triangleEnds[i] = shell.triangles.length;
    edgeEnds[i] = shell.edges.length;
    axisEnds[i] = shell.axes.length;
  });
  return {
    kind: tasks[0].kind,
    levelId: tasks[0].levelId,
    triangles: shell.triangles.done(),
    edges: shell.edges.done(),
    axes: shell.axes.done(),
    elements: tasks.map(({ elementId }) => elementId),
    triangleEnds,
    edgeEnds,
    axisEnds,
  };
}

function boxOfParts(parts: readonly BodyPart[]): Bodies['box'] {
  const box: NonNullable<Bodies['box']> = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];
  for (const { edges } of parts)
    for (let i = 0; i < edges.length; i += 1) {
      const axis = i % 3;
      if (edges[i] < box[axis]) box[axis] = edges[i];
      if (edges[i] > box[axis + 3]) box[axis + 3] = edges[i];
    }
  return box[0] > box[3] ? null : box;
}

function tasksOf(building: Building): Task[] {
  const put = <K extends ElementKind, T extends Placed<K>>(
    placed: readonly T[],
    add: (shell: Shell, one: T) => void,
  ): Task[] =>
    placed.map((one) => ({
      kind: one.kind,
      levelId: one.storey.level.id,
      elementId: one.elementId,
      add: (shell) => add(shell, one),
    }));
  const walls = building.walls.flatMap((wall) =>
    wall.openings.map((opening): Task => ({
      kind: 'opening',
      levelId: opening.storey.level.id,
      elementId: opening.elementId,
      add: (shell) => addOpening(shell, wall, opening),
    })),
  );
  const contours = building.contours.map(({ id, kind, levelId, shape }): Task => ({
    kind,
    levelId: levelId ?? '',
    elementId: id,
    add: (shell) => addContour(shell, shape),
  }));
  return [
    ...contours,
    ...put(building.columns, (shell, { shape, base, top }) => {
      shell.prism(
        columnOutlines(shape),
        () => base,
        () => top,
      );
      shell.axis([...shape.position, base], [...shape.position, top]);
    }),
    ...put(building.beams, addMember),
    ...put(building.walls, addWall),
    ...walls,
    ...put(building.slabs, (shell, { shape, top }) =>
      addLayer(shell, [shape.outline, ...shape.holes], top - shape.thickness, top),
    ),
    ...put(building.zones, (shell, { shape, base }) => addSheet(shell, shape, base + aboveFloor)),
    ...put(building.outdoor, (shell, { shape, base }) =>
      addLayer(shell, [shape.outline], base, base + Math.max(shape.height, thin)),
    ),
    ...put(building.roofs, (shell, { shape, base }) => {
      const under = (p: Point): number => base + roofHeightAt(shape, p);
      const over = shape.thickness / Math.cos(radians(shape.slope));
      shell.prism([shape.outline], under, (p) => under(p) + over);
      shell.axisRing(shape.outline.map((p): Place => [...p, under(p)]));
    }),
    ...put(building.supports, (shell, { shape, z }) => addSpike(shell, [...shape.position, z], -sign)),
    ...put(building.pointLoads, (shell, { shape, z }) => addSpike(shell, [...shape.position, z], sign)),
    ...put(building.lineLoads, (shell, { shape: { start, end }, z }) => addFringe(shell, [...start, z], [...end, z])),
    ...put(building.areaLoads, (shell, { shape, z }) => addSheet(shell, shape, z + thin)),
    ...put(building.luminaires, (shell, { shape, z }) => {
      const [x, y] = shape.position;
      const reach = sign / 2;
      const corners: Point[] = [
        [x - reach, y - reach],
        [x + reach, y - reach],
        [x + reach, y + reach],
        [x - reach, y + reach],
      ];
      addLayer(shell, [corners], z, z + plate);
    }),
    ...put(building.calculationAreas, (shell, { shape, z }) => addSheet(shell, shape, z)),
  ];
}

/** A contour, or a spot height, as a band on the ground. */
function addContour(shell: Shell, shape: Contour): void {
  const outlines = kinds.contour.outlines(shape, null);
  addLayer(shell, outlines, shape.elevation, shape.elevation + thin);
}

/** A flat thing of a thickness, its axis on its top. */
function addLayer(shell: Shell, outlines: readonly Point[][], bottom: number, top: number): void {
  shell.prism(
    outlines,
    () => bottom,
    () => top,
  );
  for (const ring of outlines) shell.axisRing(ring.map((p): Place => [...p, top]));
}

function addSheet(shell: Shell, { outline, holes }: { outline: Point[]; holes: Point[][] }, height: number): void {
  shell.sheet([outline, ...holes], height);
  for (const ring of [outline, ...holes]) shell.axisRing(ring.map((p): Place => [...p, height]));
}

/** A slim pyramid whose tip is a place; it stands on it or hangs from it. */
function addSpike(shell: Shell, tip: Place, rise: number): void {
  const [x, y, z] = tip;
  const half = sign / 4;
  const ring: Place[] = [
    [x - half, y - half, z + rise],
    [x + half, y - half, z + rise],
    [x + half, y + half, z + rise],
    [x - half, y + half, z + rise],
  ];
  ring.forEach((p, i) => {
    const next = ring[(i + 1) % ring.length];
    if (rise > 0) shell.triangle(next, p, tip);
    else shell.triangle(p, next, tip);
    shell.edge(p, next);
    shell.edge(p, tip);
    shell.axis(p, tip);
  });
  const [a, b, c, d] = ring;
  if (rise > 0) shell.quad(a, b, c, d);
  else shell.quad(d, c, b, a);
}

/** A standing band over a line. */
function addFringe(shell: Shell, start: Place, end: Place): void {
  const lift = ([x, y, z]: Place): Place => [x, y, z + sign];
  shell.quad(start, end, lift(end), lift(start));
  shell.quad(end, start, lift(start), lift(end));
  shell.edge(start, end);
  shell.edge(start, lift(start));
  shell.edge(end, lift(end));
  shell.edge(lift(start), lift(end));
  shell.axis(start, end);
}
