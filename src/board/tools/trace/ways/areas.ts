import { contains } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import type { ElementOf, ElementRow } from '@/core/kinds/element';
import { withShape } from '@/core/kinds/kinds';
import { fenceOutline, plainFence } from '@/core/kinds/outdoor';
import { fail, ok, type Result } from '@/core/result';
import type { Region } from '@/core/reading/walls/regions';
import { buildingOutlines, dividedBy, regionsOn } from '@/core/tracing/making/rooms';
import { soundEdit } from '@/core/tracing/refusals';
import { offsetOutline } from '@/core/tracing/setOff';
import { formatLength } from '@/core/units/length';
import { pointsOf, type Given, type Leak, type Seeks, type Way } from '../way';
import { making, many, one, outlineOf, prompts } from './making';

const corners = prompts('first corner', 'next corner');
const outlined = { closes: true, bends: true } as const;

/** What was made of the walls of a level; while none of them changes, it is the same. */
function ofWalls<T>(make: (given: Given) => T): (given: Given) => T {
  let last: { basis: string; model: Given['model']; made: T } | null = null;
  return (given) => {
    const { model, levelId, settings } = given;
    const basis = `${levelId} ${model.levelVersion(levelId)} ${settings.gap}`;
    if (last?.model !== model || last.basis !== basis) last = { basis, model, made: make(given) };
    return last.made;
  };
}

const finderOf = ofWalls(({ model, levelId, settings }) => regionsOn(model, levelId, settings.gap));
const outlinesOf = ofWalls(({ model, levelId }) => buildingOutlines(model, levelId));

/** The region that was clicked, or where it leaks. */
export function regionAbout(given: Given): Result<Region> {
  const [at] = pointsOf(given);
  const found = finderOf(given)(at);
  if (found.kind === 'region') return ok(found.region);
  if (found.kind === 'open')
    return fail('No walls bound a region here. Draw its outline, or the walls that are missing.');
  const [width, east, north] = [found.width, ...found.from].map((length) => formatLength(length, given.lengths));
  return fail(
    `It leaks through a gap of ${width} at E ${east}, N ${north}. Close the wall there, or allow larger gaps.`,
  );
}

/** Ways that take what walls bound about a place, and show where that leaks. */
export const inRegion = {
  seeks: (): Seeks => 'place',
  leak(given: Given): Leak | null {
    const found = finderOf(given)(pointsOf(given)[0]);
    return found.kind === 'leak' ? found : null;
  },
};

/** The edge distance applied to an outline. */
function edged(outline: readonly Point[], given: Given): Result<Point[]> {
  const { edge } = given.settings;
  return edge === 0 ? ok([...outline]) : offsetOutline(outline, edge);
}

/** The zone or the slab of a level about a point; where several lie over one another, the last. */
function areaAt<K extends 'zone' | 'slab'>({ model, levelId }: Given, kind: K, p: Point): ElementOf<K> | null {
  const found = model.index
    .touching(levelId, [p[0], p[1], p[0], p[1]])
    .filter((element): element is ElementRow & ElementOf<K> => element.kind === kind)
    .filter(({ shape }) => contains(shape.outline, p));
  return found[found.length - 1] ?? null;
}

function divided(given: Given): Result<[Point[], Point[], ElementOf<'zone'>]> {
  const [a, b] = pointsOf(given);
  const zone = areaAt(given, 'zone', [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]);
  if (zone === null) return fail('The line runs through no zone. Draw it from side to side of one.');
  if (zone.shape.holes.length > 0) return fail('A zone with holes is not divided by a line. Draw its parts.');
  const parts = dividedBy(zone.shape.outline, a, b);
  return parts === null
    ? fail('The line does not part the zone in two. Draw it from one side of the zone to another.')
    : ok([...parts, zone]);
}

const slabOf = (outline: Point[], holes: Point[][], { settings }: Given) =>
  one('slab', { ...settings.shapes.slab, outline, holes });

/** A fence is at least so high, metres: what new surfaces lie higher than the ground is less. */
const lowestFence = 1.8;

/** How slabs, zones and outdoor surfaces are made. */
export const areaWays = {
  'slab.outline': making(
    corners,
    { least: 2, most: null },
    (given) => {
      const outline = outlineOf(given);
      if (outline.length < 3) return ok([]);
      const off = edged(outline, given);
      return off.ok ? slabOf(off.value, [], given) : off;
    },
    outlined,
  ),
  'slab.region': making(
    prompts('a point between walls'),
    { least: 1, most: 1 },
    (given) => {
      const found = regionAbout(given);
      const off = found.ok ? edged(found.value.outline, given) : found;
      return found.ok && off.ok ? slabOf(off.value, found.value.holes, given) : fail(off.ok ? '' : off.message);
    },
    inRegion,
  ),
  'slab.building': making(
    prompts('anywhere: the slab takes the building\u2019s outline'),
    { least: 1, most: 1 },
    (given) => {
      const outlines = outlinesOf(given).map((outline) => edged(outline, given));
      const bad = outlines.find((outline) => !outline.ok);
      if (bad && !bad.ok) return bad;
      return outlines.length === 0
        ? fail('The walls of this level bound no building. Draw the outline.')
        : many(
            'slab',
            outlines.flatMap((outline) =>
              outline.ok ? [{ ...given.settings.shapes.slab, outline: outline.value, holes: [] }] : [],
            ),
          );
    },
    { seeks: () => 'place' },
  ),
  'slab.hole': {
    ...making(
      corners,
      { least: 2, most: null },
      (given) => one('outdoor', { name: '', height: 0, outline: outlineOf(given) }),
      outlined,
    ),
    edit(given) {
      const hole = outlineOf(given);
      const slab = hole.length < 3 ? null : areaAt(given, 'slab', hole[0]);
      if (slab === null) return fail('The opening lies in no slab of this level. Draw it inside of one.');
      if (!hole.every((p) => contains(slab.shape.outline, p)))
        return fail('A corner of the opening lies outside of the slab. Draw it inside.');
      const row = withShape<ElementRow>(slab, { ...slab.shape, holes: [...slab.shape.holes, hole] });
      return soundEdit(given.model, 'Draw 1 slab opening', [row]);
    },
  },
  'zone.region': making(
    prompts('a point in the room'),
    { least: 1, most: 1 },
    (given) => {
      const found = regionAbout(given);
      return found.ok ? one('zone', { ...given.settings.shapes.zone, ...found.value }) : found;
    },
    inRegion,
  ),
  'zone.outline': making(
    corners,
    { least: 2, most: null },
    (given) => {
      const outline = outlineOf(given);
      return outline.length < 3 ? ok([]) : one('zone', { ...given.settings.shapes.zone, outline, holes: [] });
    },
    outlined,
  ),
  'zone.divide': {
    ...making(prompts('one side of the zone', 'its other side'), { least: 2, most: 2 }, (given) => {
      if (given.points.length < 2) return ok([]);
      const parts = divided(given);
      if (!parts.ok) return parts;
      const [left, right, zone] = parts.value;
      return many('zone', [
        { ...zone.shape, outline: left },
        { ...zone.shape, outline: right },
      ]);
    }),
    edit(given) {
      const parts = divided(given);
      if (!parts.ok) return parts;
      const [left, right, zone] = parts.value;
      const first: ElementRow = { ...zone, shape: { ...zone.shape, outline: left } };
      const second: ElementRow = {
        ...zone,
        id: given.newId(),
        source: null,
        shape: { ...zone.shape, ...given.settings.shapes.zone, outline: right, holes: [] },
      };
      return soundEdit(given.model, 'Divide a zone', [first, second]);
    },
  },
  'outdoor.outline': making(
    corners,
    { least: 2, most: null },
    (given) => {
      const outline = outlineOf(given);
      return outline.length < 3 ? ok([]) : one('outdoor', { ...given.settings.shapes.outdoor, outline });
    },
    outlined,
  ),
  'outdoor.fence': making(prompts('where the fence begins', 'next post'), { least: 2, most: null }, (given) => {
    const line = pointsOf(given);
    if (line.length < 2) return ok([]);
    const { name, height } = given.settings.shapes.outdoor;
    return one('outdoor', {
      name,
      height: Math.max(height, lowestFence),
      use: 'fence',
      outline: fenceOutline(line, plainFence),
    });
  }),
} satisfies Record<string, Way>;
