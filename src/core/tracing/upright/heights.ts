import { contains } from '@/core/geometry/polygon';
import { degrees, type Point } from '@/core/geometry/vector';
import type { ElementKind, ElementOf, ElementRow } from '@/core/kinds/element';
import { awayFromLine } from '@/core/kinds/lines';
import { roofHeightAt } from '@/core/kinds/roof';
import { tiesOf, withTies, type Tie, type TiedEnd } from '@/core/kinds/tie';
import type { Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import type { LevelRow } from '@/core/model/state';
import { fail, ok, type Result } from '@/core/result';
import { soundEdit } from '../refusals';
import { describeElements } from '../words';
import { inPlan, type UprightPlane } from './plane';

/** Heights that an element of the plan can be given, by what they are of. */
export const heightNames = ['base', 'top', 'sill', 'head', 'start', 'end', 'height'] as const;
export type HeightName = (typeof heightNames)[number];

/** What each kind has. */
export const heightsOf: Partial<Record<ElementKind, readonly HeightName[]>> = {
  column: ['base', 'top'],
  wall: ['base', 'top'],
  opening: ['sill', 'head'],
  beam: ['start', 'end'],
  zone: ['top'],
  support: ['height'],
  pointLoad: ['height'],
  lineLoad: ['height'],
  luminaire: ['height'],
  calculationArea: ['height'],
};

/** Millionths of a millimetre: what is worked out comes out clean. */
const clean = (metres: number): number => Number(metres.toFixed(9));

/** The elevation that an opening's sill is measured from: the foot of its wall. */
function floorOf(model: Model, element: ElementRow, level: LevelRow): number {
  const host = element.kind === 'opening' ? model.element[element.shape.wall] : undefined;
  const base = host === undefined ? undefined : tiesOf(host).base;
  const tied = typeof base === 'object' ? model.level[base.level] : undefined;
  return typeof base === 'object' && tied !== undefined ? tied.elevation + base.offset : level.elevation;
}

/** An element with a height of it put at an elevation; a sentence where that cannot be. */
function withHeight(
  element: ElementRow,
  name: HeightName,
  z: number,
  { level, floor }: { level: LevelRow; floor: number },
): Result<ElementRow> {
  const above = clean(z - level.elevation);
  switch (element.kind) {
    case 'opening':
      return openingWith(element, name, clean(z - floor));
    case 'beam': {
      const end = name === 'end' ? 'endDrop' : 'drop';
      const drop = clean(level.elevation + level.height - z);
      // Of a level member the other end stays where it is.
      const other = name === 'start' ? { endDrop: element.shape.endDrop ?? element.shape.drop ?? 0 } : {};
      return ok(untied({ ...element, shape: { ...element.shape, ...other, [end]: drop } }, name));
    }
    case 'column':
    case 'wall':
    case 'zone': {
      const tied = withTies(element, { ...tiesOf(element), [name]: { level: level.id, offset: above } satisfies Tie });
      return ok(tied);
    }
    case 'support':
    case 'pointLoad':
    case 'lineLoad':
    case 'luminaire':
    case 'calculationArea':
      return ok({ ...element, shape: { ...element.shape, rise: above } } as ElementRow);
    default:
      return fail('It has no height that could be given.');
  }
}

/** A member whose end was tied lies where it is put now. */
function untied(element: ElementOf<'beam'>, name: HeightName): ElementRow {
  const ties = { ...tiesOf(element) };
  delete ties[name as TiedEnd];
  return withTies(element, ties);
}

function openingWith(element: ElementOf<'opening'>, name: HeightName, above: number): Result<ElementRow> {
  const { sill, height } = element.shape;
  const [low, high] = name === 'sill' ? [above, sill + height] : [sill, above];
  if (low < 0) return fail(`That lies ${(-low).toFixed(2)} m below its floor. Pick a height above the floor.`);
  if (high - low <= 0)
    return fail(
      `Its sill would lie ${low.toFixed(2)} m and its head ${high.toFixed(2)} m above the floor: the head has to be the ` +
        'higher one. Pick the other height first.',
    );
  return ok({ ...element, shape: { ...element.shape, sill: clean(low), height: clean(high - low) } });
}

/** Puts a height of all that is selected and has one at an elevation read off a section. */
export function giveHeight(model: Model, ids: Iterable<string>, name: HeightName, z: number): Result<Edit> {
  const elements = [...ids].flatMap((id) => model.element[id] ?? []);
  const having = elements.filter(({ kind }) => heightsOf[kind]?.includes(name));
  if (having.length === 0) return fail('Nothing that is selected has such a height.');
  const rows: ElementRow[] = [];
  for (const element of having) {
    const level = element.levelId === null ? undefined : model.level[element.levelId];
    if (level === undefined)
      return fail('Something that is selected belongs to no level, so that its height says nothing. Give it a level.');
    const next = withHeight(element, name, z, { level, floor: floorOf(model, element, level) });
    if (!next.ok) return next;
    rows.push(next.value);
  }
  return soundEdit(model, `${nameWords[name]} of ${describeElements(rows)} at ${z.toFixed(3)} m`, rows);
}

const nameWords: Record<HeightName, string> = {
  base: 'Base',
  top: 'Top',
  sill: 'Sill',
  head: 'Head',
  start: 'Start',
  end: 'End',
  height: 'Height',
};

/** A slope read off a section may lie this far beside the roof plane that it is given to, metres. */
const besideRoof = 1;
const steepest = 85;

/**
 * Gives roof planes the slope between two points of a section: they rise along its line, towards the higher point, and
 * go through both.
 */
export function giveSlope(model: Model, ids: Iterable<string>, plane: UprightPlane, a: Point, b: Point): Result<Edit> {
  const roofs = [...ids].flatMap((id): ElementOf<'roof'>[] => {
    const element = model.element[id];
    return element?.kind === 'roof' ? [element] : [];
  });
  if (roofs.length === 0) return fail('No roof plane is selected. Select one in the plan, then pick its slope.');
  const [low, high] = a[1] <= b[1] ? [a, b] : [b, a];
  const run = Math.abs(high[0] - low[0]);
  const slope = degrees(Math.atan2(high[1] - low[1], run));
  if (slope > steepest)
    return fail(`Between these points it rises by ${slope.toFixed(1)} degrees; a roof plane has at most ${steepest}.`);
  const direction = degrees(plane.turning) + (high[0] >= low[0] ? 0 : 180);
  const rows: ElementRow[] = [];
  for (const roof of roofs) {
    const level = roof.levelId === null ? undefined : model.level[roof.levelId];
    if (level === undefined) return fail('The roof plane belongs to no level. Give it one first.');
    const away = Math.min(...[low, high].map((p) => awayFrom(roof.shape.outline, inPlan(plane, p))));
    if (away > besideRoof)
      return fail(
        `The slope lies ${away.toFixed(1)} m beside the roof plane that is selected. Select the plane that the section ` +
          'runs through, or put the section onto its line at Datum.',
      );
    const shape = { ...roof.shape, slope, direction, eaves: 0 };
    const eaves = clean(low[1] - level.elevation - roofHeightAt(shape, inPlan(plane, low)));
    rows.push({ ...roof, shape: { ...shape, eaves } });
  }
  return soundEdit(model, `Slope of ${describeElements(rows)}: ${slope.toFixed(1)}\u00b0`, rows);
}

const awayFrom = (outline: readonly Point[], p: Point): number =>
  contains(outline, p) ? 0 : awayFromLine([...outline, outline[0]], p);
