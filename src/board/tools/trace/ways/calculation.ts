import { distance, type Point } from '@/core/geometry/vector';
import type { ElementKind, Shapes } from '@/core/kinds/element';
import { fail, ok, type Result } from '@/core/result';
import { luminaireField, luminaireRow } from '@/core/tracing/making/luminaires';
import { roofOverOutline, roofsToRidge } from '@/core/tracing/making/roofs';
import { supportsUnderColumns } from '@/core/tracing/making/supports';
import { pointsOf, type Given, type Way } from '../way';
import { inRegion, regionAbout } from './areas';
import { making, many, one, outlineOf, prompts, seekElements, sidesOf } from './making';

const corners = prompts('first corner', 'next corner');
const outlined = { closes: true, bends: true } as const;
const twoPoints = { least: 2, most: 2 } as const;

/** The outlines of the slab or the zone that was clicked. */
function clickedArea(given: Given, kind: 'slab' | 'zone'): Result<{ outline: Point[]; holes: Point[][] }> {
  const element = given.points[0]?.element;
  if (element?.kind !== kind) return fail(`There is no ${kind} here. Click inside of one.`);
  const { outline, holes } = element.shape;
  return ok({ outline, holes });
}

/** One element of a kind with outlines that were found. */
const within = <K extends 'areaLoad' | 'calculationArea'>(
  kind: K,
  like: Shapes[K],
  found: Result<{ outline: Point[]; holes: Point[][] }>,
) => (found.ok ? one<ElementKind>(kind, { ...like, ...found.value }) : found);

/** An outline once it has three corners. */
const drawn = (
  given: Given,
  make: (outline: Point[]) => Shapes['roof' | 'areaLoad' | 'calculationArea'],
  kind: ElementKind,
) => {
  const outline = outlineOf(given);
  return outline.length < 3 ? ok([]) : one(kind, make(outline));
};

/** How roof planes, supports, loads, luminaires, contours and calculation areas are made. */
export const calculationWays = {
  'roof.outline': making(
    prompts('the eaves begin', 'where the eaves end', 'next corner'),
    { least: 2, most: null },
    (given) => drawn(given, (outline) => roofOverOutline(outline, given.settings.shapes.roof), 'roof'),
    outlined,
  ),
  'roof.ridge': making(prompts('one corner of the two planes', 'the opposite corner'), twoPoints, (given) => {
    if (given.points.length < 2) return ok([]);
    const made = roofsToRidge(outlineOf(given), given.settings.shapes.roof);
    return made.ok ? many('roof', made.value) : made;
  }),
  'support.point': making(prompts('where it holds'), { least: 1, most: 1 }, (given) =>
    one('support', { ...given.settings.shapes.support, position: given.points[0].at }),
  ),
  'support.columns': making(
    prompts('drag a box round columns'),
    twoPoints,
    (given) => {
      const [a, b = a] = pointsOf(given);
      const made = supportsUnderColumns(given.model, given.levelId, [a, b], given.settings.shapes.support);
      return made.length === 0 ? fail('No column without a support stands in the box.') : many('support', made);
    },
    { box: true },
  ),
  'pointLoad.point': making(prompts('where it acts'), { least: 1, most: 1 }, (given) =>
    one('pointLoad', { ...given.settings.shapes.pointLoad, position: given.points[0].at }),
  ),
  'lineLoad.chain': making(prompts('where the load begins', 'next point'), { least: 2, most: null }, (given) =>
    many(
      'lineLoad',
      sidesOf(pointsOf(given)).map(([start, end]) => ({ ...given.settings.shapes.lineLoad, start, end })),
    ),
  ),
  'areaLoad.region': making(
    prompts('a point between walls'),
    { least: 1, most: 1 },
    (given) => within('areaLoad', given.settings.shapes.areaLoad, regionAbout(given)),
    inRegion,
  ),
  'areaLoad.slab': making(
    prompts('a slab'),
    { least: 1, most: 1 },
    (given) => within('areaLoad', given.settings.shapes.areaLoad, clickedArea(given, 'slab')),
    { seeks: seekElements('slab') },
  ),
  'areaLoad.outline': making(
    corners,
    { least: 2, most: null },
    (given) => drawn(given, (outline) => ({ ...given.settings.shapes.areaLoad, outline, holes: [] }), 'areaLoad'),
    outlined,
  ),
  'luminaire.point': making(prompts('where it hangs'), { least: 1, most: 1 }, (given) =>
    one('luminaire', { ...given.settings.shapes.luminaire, position: given.points[0].at }),
  ),
  'luminaire.row': making(prompts('one wall', 'the wall across'), twoPoints, (given) => {
    const [from, to] = pointsOf(given);
    if (to === undefined || distance(from, to) === 0) return ok([]);
    const { count, shapes } = given.settings;
    return many('luminaire', luminaireRow(from, to, count, shapes.luminaire));
  }),
  'luminaire.field': making(prompts('one corner of the field', 'the opposite corner'), twoPoints, (given) => {
    if (given.points.length < 2) return ok([]);
    const { count, rows, shapes } = given.settings;
    return many('luminaire', luminaireField(outlineOf(given), count, rows, shapes.luminaire));
  }),
  'contour.line': making(prompts('where it begins', 'next point'), { least: 2, most: null }, (given) => {
    const points = pointsOf(given);
    return points.length < 2 ? ok([]) : one('contour', { ...given.settings.shapes.contour, points });
  }),
  'contour.spot': making(prompts('where the ground is measured'), { least: 1, most: 1 }, (given) =>
    one('contour', { ...given.settings.shapes.contour, points: [given.points[0].at] }),
  ),
  'calculationArea.zone': making(
    prompts('a zone'),
    { least: 1, most: 1 },
    (given) => within('calculationArea', given.settings.shapes.calculationArea, clickedArea(given, 'zone')),
    { seeks: seekElements('zone') },
  ),
  'calculationArea.outline': making(
    corners,
    { least: 2, most: null },
    (given) =>
      drawn(given, (outline) => ({ ...given.settings.shapes.calculationArea, outline, holes: [] }), 'calculationArea'),
    outlined,
  ),
} satisfies Record<string, Way>;
