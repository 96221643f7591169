import { cross, direction, distance, dot, pointAlong, subtract, type Point } from '@/core/geometry/vector';
import { middleOfBeam } from '@/core/kinds/beam';
import { columnOutline } from '@/core/kinds/column';
import type { ElementRow } from '@/core/kinds/element';
import { roofHeightAt } from '@/core/kinds/roof';
import { sectionSize } from '@/core/kinds/section';
import type {
  Building,
  PlacedBeam,
  PlacedColumn,
  PlacedOpening,
  PlacedRoof,
  PlacedSlab,
  PlacedWall,
} from '@/core/resolved/building';
import { fromPlan, seenWithin, type UprightPlane } from '@/core/tracing/upright/plane';

/** What runs along the plane more than across it is seen by its length, by this cosine. */
const along = 0.5;

/** A row of a shape in the plane: it stands for an element, and belongs to no level. */
const shown = (id: string, of: Pick<ElementRow, 'kind' | 'shape'>): ElementRow =>
  ({ ...of, id, levelId: null, source: null, libraryId: null }) as ElementRow;

const band = (id: string, kind: 'beam' | 'wall', start: Point, end: Point, thick: number, mark = ''): ElementRow =>
  kind === 'wall'
    ? shown(id, { kind, shape: { start, end, thickness: thick, height: null, bulge: 0, outer: false } })
    : shown(id, { kind, shape: { start, end, section: { shape: 'rectangle', width: thick, depth: thick }, mark } });

/**
 * What of a building is seen in the plane of a section or an elevation: columns, members, walls with their openings,
 * slabs and roofs that cross it or lie close to it, as shapes in the plane's own coordinates. A slab that is cut twice
 * has a row a cut, the further ones under the element's id with a number.
 */
export function seenFaceOn(building: Building, plane: UprightPlane): ElementRow[] {
  return [
    ...building.slabs.flatMap((slab) => slabRows(slab, plane)),
    ...building.roofs.flatMap((roof) => roofRows(roof, plane)),
    ...building.walls.flatMap((wall) => wallRows(wall, plane)),
    ...building.columns.flatMap((column) => columnRow(column, plane)),
    ...building.beams.flatMap((beam) => beamRow(beam, plane)),
  ];
}

function columnRow({ id, shape, base, top }: PlacedColumn, plane: UprightPlane): ElementRow[] {
  const corners = columnOutline(shape).map((p) => fromPlan(plane, p));
  const alongs = corners.map((corner) => corner.along);
  const offs = corners.map(({ off }) => off);
  if (Math.min(...offs) > seenWithin || Math.max(...offs) < -seenWithin) return [];
  const [from, to] = [Math.min(...alongs), Math.max(...alongs)];
  const section = { shape: 'rectangle', width: to - from, depth: top - base } as const;
  const position: Point = [(from + to) / 2, (base + top) / 2];
  return [shown(id, { kind: 'column', shape: { position, rotation: 0, section, mark: shape.mark } })];
}

/** Whether a piece in plan is seen along the plane, or where it crosses it. */
function seenAs(
  [a, b]: readonly [Point, Point],
  plane: UprightPlane,
): { from: number; to: number } | { crossing: number } | null {
  const [p, q] = [fromPlan(plane, a), fromPlan(plane, b)];
  const size = distance(a, b);
  const runs = size === 0 || Math.abs(dot(subtract(b, a), direction(plane.turning))) > along * size;
  const near = Math.abs(p.off) <= seenWithin && Math.abs(q.off) <= seenWithin;
  const crosses = p.off * q.off <= 0 && p.off !== q.off;
  if (runs && (near || crosses)) return { from: p.along, to: q.along };
  if (!crosses) return null;
  return { crossing: p.off / (p.off - q.off) };
}

function beamRow(beam: PlacedBeam, plane: UprightPlane): ElementRow[] {
  const { id, shape, startTop, endTop } = beam;
  const { width, depth } = sectionSize(shape.section);
  const line = middleOfBeam(shape);
  const seen = seenAs(line, plane);
  // A beam hangs below its line, a brace and a member of a truss lie about it.
  const below = (shape.use ?? 'beam') === 'beam' ? depth / 2 : 0;
  if (seen === null) return [];
  if ('from' in seen)
    return [band(id, 'beam', [seen.from, startTop - below], [seen.to, endTop - below], depth, shape.mark)];
  const { along: at } = fromPlan(plane, pointAlong(...line, seen.crossing));
  const height = startTop + (endTop - startTop) * seen.crossing - below;
  return [band(id, 'beam', [at - width / 2, height], [at + width / 2, height], depth, shape.mark)];
}

function wallRows({ id, shape, base, top, openings }: PlacedWall, plane: UprightPlane): ElementRow[] {
  const line = [shape.start, shape.end] as const;
  const seen = seenAs(line, plane);
  if (seen === null) return [];
  const middle = (base + top) / 2;
  const size = distance(...line);
  if ('from' in seen) {
    const along = (offset: number): number => seen.from + ((seen.to - seen.from) * offset) / size;
    const open = openings.flatMap((one, i) => {
      const { offset, width } = one.shape;
      return openingRows(one, [along(offset), along(offset + width)], base, numbered(id, i + 1));
    });
    return [band(id, 'wall', [seen.from, middle], [seen.to, middle], top - base), ...(shape.bulge === 0 ? open : [])];
  }
  const { along: at } = fromPlan(plane, pointAlong(...line, seen.crossing));
  const sine = Math.abs(cross(subtract(line[1], line[0]), direction(plane.turning))) / size;
  const half = shape.thickness / sine / 2;
  const cut = openings.findIndex(({ shape: { offset, width } }) => {
    const from = seen.crossing * size - offset;
    return from > 0 && from < width;
  });
  const open = cut < 0 ? [] : openingRows(openings[cut], [at - half, at + half], base, numbered(id, cut + 1));
  return [band(id, 'wall', [at, base], [at, top], 2 * half), ...open];
}

/** An opening over a stretch of the plane, and the piece of its wall that it takes up there. */
function openingRows(
  { id, shape }: PlacedOpening,
  stretch: [number, number],
  base: number,
  host: string,
): ElementRow[] {
  const [from, to] = [Math.min(...stretch), Math.max(...stretch)];
  const middle = base + shape.sill + shape.height / 2;
  return [
    band(host, 'wall', [from, middle], [to, middle], shape.height),
    shown(id, { kind: 'opening', shape: { ...shape, wall: host, offset: 0, width: to - from } }),
  ];
}

/** Where the plane cuts outlines: stretches along it. */
function cuts(outlines: readonly (readonly Point[])[], plane: UprightPlane): [number, number][] {
  const at = outlines.flatMap((ring) =>
    ring.flatMap((a, i): number[] => {
      const [p, q] = [fromPlan(plane, a), fromPlan(plane, ring[(i + 1) % ring.length])];
      // A corner on the plane belongs to one of its sides.
      if (p.off < 0 === q.off < 0) return [];
      return [p.along + ((q.along - p.along) * p.off) / (p.off - q.off)];
    }),
  );
  const sorted = at.sort((a, b) => a - b);
  return sorted.flatMap((from, i): [number, number][] =>
    i % 2 === 0 && i + 1 < sorted.length ? [[from, sorted[i + 1]]] : [],
  );
}

const numbered = (id: string, i: number): string => (i === 0 ? id : `${id}#${i}`);

function slabRows({ id, shape, top }: PlacedSlab, plane: UprightPlane): ElementRow[] {
  const low = top - shape.thickness;
  return cuts([shape.outline, ...shape.holes], plane).map(([from, to], i) =>
    shown(numbered(id, i), {
      kind: 'slab',
      shape: {
        outline: [
          [from, low],
          [to, low],
          [to, top],
          [from, top],
        ],
        holes: [],
        thickness: shape.thickness,
      },
    }),
  );
}

function roofRows({ id, shape, base }: PlacedRoof, plane: UprightPlane): ElementRow[] {
  const u = direction(plane.turning);
  const under = (at: number): number => base + roofHeightAt(shape, [plane.at[0] + at * u[0], plane.at[1] + at * u[1]]);
  const thick = shape.thickness / Math.cos((shape.slope * Math.PI) / 180);
  return cuts([shape.outline], plane).map(([from, to], i) =>
    shown(numbered(id, i), {
      kind: 'roof',
      shape: {
        ...shape,
        outline: [
          [from, under(from)],
          [to, under(to)],
          [to, under(to) + thick],
          [from, under(from) + thick],
        ],
      },
    }),
  );
}
