import { boxOf, type Box } from '@/core/geometry/boxIndex';
import { contains } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import { columnOutline } from '@/core/kinds/column';
import { awayFromLine, bandOutline } from '@/core/kinds/lines';
import { sectionSize, type Section } from '@/core/kinds/section';
import type { ReadModel } from '@/core/handover/model/readModel';
import type { Rigidity } from '../frame';
import { propertiesOf, type SectionProperties } from '../section/properties';
import { axesOf, minus, size3, turned, type Axes, type V3 } from '../vector3';
import { shearModulus, type Material, type Materials } from './materials';
import type { Report } from '@/core/proof/report';

/** The straight axis of an element that carries, before it is split where others meet it. */
export interface Axis {
  element: string;
  kind: 'column' | 'beam' | 'wall';
  /** The level that it belongs to. */
  level: string;
  start: V3;
  end: V3;
  length: number;
  axes: Axes;
  rigidity: Rigidity;
  /** kg per metre of its length. */
  mass: number;
  /** Of what stands: its outline in plan; of a beam null. */
  outline: Point[] | null;
  /** Of a wall: its centre line in plan. */
  line: readonly [Point, Point] | null;
  /** What it takes up in plan. */
  box: Box;
  released: boolean[];
  mark: string;
}

const plan = ([x, y]: readonly number[]): Point => [x, y];
const rad = (degrees: number): number => (degrees * Math.PI) / 180;
const none: boolean[] = new Array<boolean>(12).fill(false);
const freedoms = ['x', 'y', 'z', 'rx', 'ry', 'rz'];

const rigidityOf = ({ area, iy, iz, iyz, j }: SectionProperties, material: Material): Rigidity => ({
  ea: material.e * area,
  eiy: material.e * iy,
  eiz: material.e * iz,
  eiyz: material.e * iyz,
  gj: shearModulus(material) * j,
});

/** Axes shorter than this are none, metres. */
const shortest = 1e-6;

/** Makes the axes of all columns, beams and bearing walls; what cannot carry is told and left out. */
export function axesOfModel(model: ReadModel, materials: Materials, report: Report): Axis[] {
  const levels = new Map(model.levels.map((level) => [level.id, level]));
  const made = [
    ...model.columns.map((column) => columnAxis(column, levels.get(column.level), materials)),
    ...model.walls
      .filter((wall) => materials.carries(wall))
      .map((wall) => wallAxis(wall, levels.get(wall.level), materials, report)),
    ...model.beams.map((beam) => beamAxis(beam, materials)),
  ];
  return made.filter((axis) => isSound(axis, report));
}

/** Whether an axis has a length, a section and a material that resist. */
function isSound({ element, kind, start, length, rigidity, mass }: Axis, report: Report): boolean {
  const { ea, eiy, eiz, gj } = rigidity;
  const numbers = [...start, length, mass, ea, eiy, eiz, gj];
  if (!numbers.every(Number.isFinite)) {
    report.find(
      'numbers',
      'error',
      [element],
      [0, 0, 0],
      [`A ${kind} has a coordinate or a size that is no number.`, 'Put it right; it is left out of the trial.'],
    );
    return false;
  }
  if (length < shortest) {
    report.find('zero length', 'error', [element], start, [
      `A ${kind} has no length: both its ends lie at one point.`,
      'Delete it or move an end; it is left out of the trial.',
    ]);
    return false;
  }
  if (Math.min(ea, eiy, eiz, gj) > 0) return true;
  report.find('no section', 'error', [element], start, [
    `A ${kind} resists nothing: its section has an area of ${(ea === 0 ? 0 : mass / length).toPrecision(3)} or its ` +
      'material no stiffness.',
    'Give it a section and a material; it is left out of the trial.',
  ]);
  return false;
}

type Level = ReadModel['levels'][number] | undefined;

function columnAxis(column: ReadModel['columns'][number], level: Level, materials: Materials): Axis {
  const base = column.base ?? level?.elevation ?? 0;
  const top = column.top ?? (level === undefined ? base : level.elevation + level.height);
  const properties = propertiesOf(column.section as Section);
  const angle = rad(column.rotation);
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const [cy, cz] = properties.centroid;
  const at: Point = [column.position[0] + cy * c - cz * s, column.position[1] + cy * s + cz * c];
  const outline = columnOutline({ ...column, section: column.section as Section, position: plan(column.position) });
  const material = materials.of('columns', column.material);
  return {
    element: column.id,
    kind: 'column',
    level: column.level,
    start: [...at, base],
    end: [...at, top],
    length: Math.abs(top - base),
    axes: turned([0, 0, top < base ? -1 : 1], [1, 0, 0], [0, top < base ? -1 : 1, 0], angle),
    rigidity: rigidityOf(properties, material),
    mass: material.density * properties.area,
    outline,
    line: null,
    box: boxOf([...outline, at]),
    released: none,
    mark: column.mark,
  };
}

/** A wall in its plane: an upright axis at its middle, as wide as it is long. */
function wallAxis(wall: ReadModel['walls'][number], level: Level, materials: Materials, report: Report): Axis {
  const [a, b] = [plan(wall.start), plan(wall.end)];
  if (wall.bulge !== 0) report.assume('Curved walls that carry are taken as straight from end to end');
  const base = wall.base ?? level?.elevation ?? 0;
  const top = wall.top ?? base + wall.height;
  const run = Math.hypot(b[0] - a[0], b[1] - a[1]);
  const properties = propertiesOf({ shape: 'rectangle', width: run, depth: wall.thickness });
  const outline = run > 0 ? bandOutline([a, b], wall.thickness) : [a];
  const at: Point = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  const angle = Math.atan2(b[1] - a[1], b[0] - a[0]);
  const material = materials.of('walls that carry', wall.material);
  return {
    element: wall.id,
    kind: 'wall',
    level: wall.level,
    start: [...at, base],
    end: [...at, top],
    length: Math.abs(top - base),
    axes: turned([0, 0, 1], [1, 0, 0], [0, 1, 0], angle),
    rigidity: rigidityOf(properties, material),
    mass: material.density * properties.area,
    outline,
    line: [a, b],
    box: boxOf(outline),
    released: none,
    mark: '',
  };
}

/** How far the middle of a beam lies to the left of its line. */
function leftBy({ justification, section }: ReadModel['beams'][number]): number {
  const half = sectionSize(section as Section).width / 2;
  if (justification === 'left') return -half;
  return justification === 'right' ? half : 0;
}

function beamAxis(beam: ReadModel['beams'][number], materials: Materials): Axis {
  const [[x1, y1, z1], [x2, y2, z2]] = [beam.start, beam.end];
  const run = Math.hypot(x2 - x1, y2 - y1) || 1;
  const aside = leftBy(beam);
  const shift: Point = [(-(y2 - y1) / run) * aside, ((x2 - x1) / run) * aside];
  const start: V3 = [x1 + shift[0], y1 + shift[1], z1];
  const end: V3 = [x2 + shift[0], y2 + shift[1], z2];
  const length = size3(minus(end, start));
  const properties = propertiesOf(beam.section as Section);
  const material = materials.of('beams', beam.material);
  const { releases } = beam;
  const of = (names: readonly string[] | undefined): boolean[] =>
    freedoms.map((name) => names?.includes(name) ?? false);
  return {
    element: beam.id,
    kind: 'beam',
    level: beam.level,
    start,
    end,
    length,
    axes: length > 0 ? axesOf(start, end, rad(beam.angle ?? 0)) : [start, start, start],
    rigidity: rigidityOf(properties, material),
    mass: material.density * properties.area,
    outline: null,
    line: null,
    box: boxOf([plan(start), plan(end)]),
    released: [...of(releases?.start), ...of(releases?.end)],
    mark: beam.mark,
  };
}

/** Ends on a face belong to what stands there: rounding, metres. */
const onFace = 0.001;

/** Whether a place lies in the outline of something that stands, between its foot and its head. */
export function standsAt({ outline, start, end }: Axis, [x, y, z]: V3, tolerance: number): boolean {
  if (outline === null || outline.length < 3) return false;
  if (z < Math.min(start[2], end[2]) - tolerance || z > Math.max(start[2], end[2]) + tolerance) return false;
  return contains(outline, [x, y]) || awayFromLine([...outline, outline[0]], [x, y]) <= onFace;
}
