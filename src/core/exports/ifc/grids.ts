import { degrees, radians } from '@/core/geometry/vector';
import type { ReadModel } from '@/core/handover/model/readModel';
import type { Frame } from './context';
import { globalId } from './globalId';
import type { Relations } from './relations';
import { typed, word, type Ref } from './step';

type GridLine = ReadModel['grids'][number];

/** Lines within this of one direction are one family, degrees. */
const oneFamily = 1;

const directionOf = ({ start, end }: Extract<GridLine, { kind: 'line' }>): number =>
  ((degrees(Math.atan2(end[1] - start[1], end[0] - start[0])) % 180) + 180) % 180;

/** Straight lines by their direction; arcs are a family of their own. */
function familiesOf(grids: readonly GridLine[]): GridLine[][] {
  const families: { direction: number | null; lines: GridLine[] }[] = [];
  for (const line of grids) {
    const direction = line.kind === 'line' ? directionOf(line) : null;
    const known = families.find((family) => {
      if (family.direction === null || direction === null) return family.direction === direction;
      const apart = Math.abs(family.direction - direction);
      return Math.min(apart, 180 - apart) <= oneFamily;
    });
    if (known === undefined) families.push({ direction, lines: [line] });
    else known.lines.push(line);
  }
  return families.map(({ lines }) => lines);
}

/** The grid of a model: families of two directions are a grid together, since each asks for two of them. */
export function addGrids({ file, shapes, building }: Frame, { grids }: ReadModel, relations: Relations): void {
  const families = familiesOf(grids);
  if (families.length === 1) {
    // One family alone gives its last line to the other.
    const last = families[0].length > 1 ? families[0].pop() : undefined;
    if (last === undefined) return;
    families.push([last]);
  }
  const axis = (line: GridLine): Ref => file.add('IFCGRIDAXIS', line.label, curveOf(line), true);
  const curveOf = (line: GridLine): Ref => {
    if (line.kind === 'line') return shapes.polyline([line.start, line.end]);
    const circle = file.add(
      'IFCCIRCLE',
      file.once('IFCAXIS2PLACEMENT2D', shapes.point(line.centre), null),
      line.radius,
    );
    const at = (angle: number) => [typed('IFCPARAMETERVALUE', radians(angle))];
    return file.add('IFCTRIMMEDCURVE', circle, at(line.startAngle), at(line.endAngle), true, word('PARAMETER'));
  };
  for (let i = 0; i < families.length; i += 2) {
    // An odd one at the end is the third of the last pair.
    const left = families.length - i;
    if (left === 1) break;
    const own = families.slice(i, left === 3 ? i + 3 : i + 2);
    const [u, v, w] = own.map((family) => family.map(axis));
    const lines = own.flat().filter((line): line is Extract<GridLine, { kind: 'line' }> => line.kind === 'line');
    const set = file.add('IFCGEOMETRICCURVESET', lines.map(curveOf));
    const footprint = file.add('IFCSHAPEREPRESENTATION', shapes.axis, 'FootPrint', 'GeometricCurveSet', [set]);
    const shown = file.add('IFCPRODUCTDEFINITIONSHAPE', null, null, [footprint]);
    const place = shapes.placement(null, shapes.origin);
    const id = globalId(`grid ${own[0][0].id}`);
    const name = `Grid ${i / 2 + 1}`;
    const grid = file.add('IFCGRID', id, null, name, null, null, place, shown, u, v, w ?? null, word('NOTDEFINED'));
    relations.relate('contained', 'building', building, grid);
    if (left === 3) break;
  }
}
