import { pointAlong, type Point } from '@/core/geometry/vector';
import { groupBy } from '@/core/groupBy';
import type { ElementOf, ElementRow } from '@/core/kinds/element';
import { kinds } from '@/core/kinds/kinds';
import { tiesOf } from '@/core/kinds/tie';
import { wallLength, wallLine } from '@/core/kinds/wall';
import { structuralTop } from '@/core/model/levels';
import type { LevelRow } from '@/core/model/state';
import { boundariesOf } from './boundaries';
import type { Building, PlacedColumn, PlacedRoof, PlacedWall, PlacedZone, Storey, Unresolved } from './building';
import { Ties } from './heights';
import { addStorey, ofKind, roofsOf } from './place';
import { roofOver } from './roofs';

/** What a building is resolved from: the levels and the elements of a model. */
export interface BuildingInput {
  levels: readonly LevelRow[];
  elements: readonly ElementRow[];
  /** Whether what bounds the zones is left out: for those who only show the building. */
  unbounded?: boolean;
}

/** An opening may end this far beyond its wall's end, metres: ends are rounded. */
const beyond = 0.001;

/** Resolves a model to the building that it means; what cannot be resolved is told and left out. */
export function resolveBuilding({ levels, elements, unbounded = false }: BuildingInput): Building {
  const storeys = storeysOf(levels);
  const unresolved: Unresolved[] = [];
  const known = new Set(levels.map(({ id }) => id));
  const grids = ofKind(elements, 'grid');
  const contours = ofKind(elements, 'contour');
  const standing = elements.filter(({ kind }) => kind !== 'grid' && kind !== 'contour');
  const stands = ({ levelId }: ElementRow): boolean => levelId !== null && known.has(levelId);
  unresolved.push(...withoutLevel(standing.filter((element) => !stands(element))));
  const byLevel = groupBy(soundOpenings(standing.filter(stands), unresolved), ({ levelId }) => levelId);
  const building: Building = {
    storeys,
    grids,
    columns: [],
    beams: [],
    walls: [],
    slabs: [],
    zones: [],
    outdoor: [],
    roofs: [],
    supports: [],
    pointLoads: [],
    lineLoads: [],
    areaLoads: [],
    luminaires: [],
    calculationAreas: [],
    contours,
    unresolved,
  };
  const bounded = unbounded ? [] : [...byLevel];
  const boundaries = new Map(bounded.map(([levelId, own]) => [levelId, boundariesOf(own)]));
  const elementsOf = ({ level }: Storey): readonly ElementRow[] => byLevel.get(level.repeats ?? level.id) ?? [];
  // Walls, columns and zones may end under roofs of their own level and of those above.
  for (const storey of storeys) building.roofs.push(...roofsOf(storey, elementsOf(storey)));
  const ties = new Ties(storeys);
  for (const storey of storeys)
    addStorey(building, ties, storey, elementsOf(storey), boundaries.get(storey.level.repeats ?? storey.level.id));
  unresolved.push(...looseTies(standing, ties), ...withoutRoof(building));
  return building;
}

/** Elements tied to levels that there are not: they stand as their own level has it. */
const looseTies = (elements: readonly ElementRow[], ties: Ties): Unresolved[] =>
  keptByKind(
    'noTie',
    elements.filter((element) => ties.isLoose(element)),
    (what) =>
      `An end of ${what} is tied to a level that is not there any more: it lies as its own level has it. Tie it again.`,
  );

/** What ends under a roof where none is: it ends at its storey's top. */
function withoutRoof({ columns, walls, zones, roofs }: Building): Unresolved[] {
  const wanting = [...columns, ...walls, ...zones].filter(
    (placed) => tiesOf(placed).top === 'roof' && !isUnderRoof(placed, roofs),
  );
  const once = new Map(wanting.map(({ elementId, kind }) => [elementId, { id: elementId, kind }]));
  return keptByKind(
    'noRoof',
    [...once.values()],
    (what) =>
      `No roof plane covers ${what} meant to end under one: the storey\u2019s top is taken. Draw it, or choose another top.`,
  );
}

/** What is told of elements that are in the building all the same, all of a kind in one sentence. */
const keptByKind = (
  rule: Unresolved['rule'],
  elements: readonly Pick<ElementRow, 'id' | 'kind'>[],
  message: (what: string) => string,
): Unresolved[] =>
  [...groupBy(elements, ({ kind }) => kind)].map(([kind, own]) => ({
    rule,
    kind,
    elements: own.map(({ id }) => id),
    message: message(`${own.length} ${kinds[kind].names[own.length === 1 ? 0 : 1]}`),
    kept: true,
  }));

function isUnderRoof(placed: PlacedColumn | PlacedWall | PlacedZone, roofs: readonly PlacedRoof[]): boolean {
  const under = (p: Point): boolean => roofOver(roofs, p, placed.base) !== null;
  if (placed.kind === 'zone') return (placed.underRoofs?.covered ?? 0) > 0;
  if (placed.kind === 'column') return under(placed.shape.position);
  const { start, end, bulge } = placed.shape;
  if (bulge !== 0) return wallLine(placed.shape).some(under);
  // Between two places where its top changes a straight wall is under one plane or under none.
  const length = wallLength(placed.shape);
  const stops = (placed.profile ?? []).map(([along]) => along / length);
  return stops.slice(1).some((to, i) => under(pointAlong(start, end, (stops[i] + to) / 2)));
}

export function storeysOf(levels: readonly LevelRow[]): Storey[] {
  return [...levels]
    .sort((a, b) => a.elevation - b.elevation)
    .map((level) => ({
      level,
      base: level.elevation,
      top: level.elevation + level.height,
      structuralTop: structuralTop(level),
    }));
}

function withoutLevel(elements: readonly ElementRow[]): Unresolved[] {
  return [...groupBy(elements, ({ kind }) => kind)].map(([kind, own]) => {
    const [one, many] = kinds[kind].names;
    const words = own.length === 1 ? `1 ${one} belongs` : `${own.length} ${many} belong`;
    return {
      rule: 'noLevel',
      kind,
      elements: own.map(({ id }) => id),
      kept: false,
      message:
        `${words} to no level, so that nobody knows how high to put what is there. Give the ` +
        'drawing it was read from a level at Datum and accept it again, or delete it.',
    };
  });
}

/** The elements without openings that have no wall on their level, or that end beyond it. */
function soundOpenings(elements: readonly ElementRow[], unresolved: Unresolved[]): ElementRow[] {
  const walls = new Map(ofKind(elements, 'wall').map((wall) => [wall.id, wall]));
  return elements.filter((element) => {
    if (element.kind !== 'opening') return true;
    const host = walls.get(element.shape.wall);
    const problem = host === undefined ? 'noWall' : openingProblem(element, host);
    if (problem === null) return true;
    unresolved.push({
      ...problemWords[problem](element, host),
      rule: problem,
      kept: false,
      kind: 'opening',
      elements: [element.id],
    });
    return false;
  });
}

function openingProblem(opening: ElementOf<'opening'>, host: ElementOf<'wall'>): 'beyondWall' | 'noWall' | null {
  if (host.levelId !== opening.levelId) return 'noWall';
  return opening.shape.offset + opening.shape.width > wallLength(host.shape) + beyond ? 'beyondWall' : null;
}

type Words = (opening: ElementOf<'opening'>, host: ElementOf<'wall'> | undefined) => { message: string };

const problemWords: Record<'noWall' | 'beyondWall', Words> = {
  noWall: ({ shape }) => ({
    message: `A ${shape.use} ${shape.width.toFixed(2)} m wide has no wall on its level to be in. Put it into a wall, or delete it.`,
  }),
  beyondWall: ({ shape }, host) => ({
    message:
      `A ${shape.use} ends ${(shape.offset + shape.width).toFixed(2)} m from the start of a ` +
      `wall that is ${wallLength(host!.shape).toFixed(2)} m long. Move it, or make the wall longer.`,
  }),
};
