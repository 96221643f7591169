import { groupBy } from '@/core/groupBy';
import { dropsOf } from '@/core/kinds/beam';
import type { ElementKind, ElementOf, ElementRow } from '@/core/kinds/element';
import { kinds } from '@/core/kinds/kinds';
import { wallLength } from '@/core/kinds/wall';
import { structuralTop } from '@/core/model/levels';
import type { LevelRow } from '@/core/model/state';
import { boundariesOf, type Boundary } from './boundaries';
import type { Building, Placed, PlacedOpening, PlacedWall, Storey, Unresolved } from './building';

/** What a building is resolved from: the levels and the elements of a model. */
export interface BuildingInput {
  levels: readonly LevelRow[];
  elements: readonly ElementRow[];
}

/** An opening may end this far beyond its wall's end, metres: ends are rounded. */
const beyond = 0.001;

/** Resolves a model to the building that it means; what cannot be resolved is told and left out. */
export function resolveBuilding({ levels, elements }: BuildingInput): Building {
  const storeys = storeysOf(levels);
  const unresolved: Unresolved[] = [];
  const known = new Set(levels.map(({ id }) => id));
  const grids = ofKind(elements, 'grid');
  const standing = elements.filter((element) => element.kind !== 'grid');
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
    unresolved,
  };
  const boundaries = new Map([...byLevel].map(([levelId, own]) => [levelId, boundariesOf(own)]));
  for (const storey of storeys) {
    const source = storey.level.repeats ?? storey.level.id;
    addStorey(building, storey, byLevel.get(source) ?? [], boundaries.get(source) ?? new Map());
  }
  return building;
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

const ofKind = <K extends ElementKind>(elements: readonly ElementRow[], kind: K): ElementOf<K>[] =>
  elements.filter((element) => element.kind === kind) as unknown as ElementOf<K>[];

function withoutLevel(elements: readonly ElementRow[]): Unresolved[] {
  return [...groupBy(elements, ({ kind }) => kind)].map(([kind, own]) => {
    const [one, many] = kinds[kind].names;
    const words = own.length === 1 ? `1 ${one} belongs` : `${own.length} ${many} belong`;
    return {
      rule: 'noLevel',
      kind,
      elements: own.map(({ id }) => id),
      message: `${words} to no level, so that nobody knows how high to put what is there. Give the drawing it was read from a level at Datum and accept it again, or delete it.`,
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
    message: `A ${shape.use} ends ${(shape.offset + shape.width).toFixed(2)} m from the start of a wall that is ${wallLength(host!.shape).toFixed(2)} m long. Move it, or make the wall longer.`,
  }),
};

/** Puts the elements of a level, or of the level that it repeats, on a storey. */
function addStorey(
  building: Building,
  storey: Storey,
  elements: readonly ElementRow[],
  boundaries: ReadonlyMap<string, Boundary[]>,
): void {
  const { base, top, level } = storey;
  const idOf = (id: string): string => (level.repeats === null ? id : `${id}@${level.id}`);
  const place = <K extends ElementKind>({ levelId: _, ...element }: ElementOf<K>): Placed<K> => ({
    ...element,
    id: idOf(element.id),
    elementId: element.id,
    storey,
  });
  const walls = new Map<string, PlacedWall>();
  for (const element of ofKind(elements, 'wall')) {
    const wall = { ...place(element), base, top: base + (element.shape.height ?? level.height), openings: [] };
    walls.set(element.id, wall);
    building.walls.push(wall);
  }
  for (const element of ofKind(elements, 'opening')) {
    const opening: PlacedOpening = { ...place(element), wall: idOf(element.shape.wall) };
    walls.get(element.shape.wall)?.openings.push(opening);
  }
  for (const element of ofKind(elements, 'column')) building.columns.push({ ...place(element), base, top });
  for (const element of ofKind(elements, 'beam')) {
    const [start, end] = dropsOf(element.shape);
    building.beams.push({ ...place(element), startTop: top - start, endTop: top - end });
  }
  for (const element of ofKind(elements, 'slab')) building.slabs.push({ ...place(element), top: storey.structuralTop });
  for (const element of ofKind(elements, 'zone')) {
    const sides = (boundaries.get(element.id) ?? []).map((side) => ({
      ...side,
      wall: idOf(side.wall),
      beyond: side.beyond === null ? null : idOf(side.beyond),
      openings: side.openings.map(idOf),
    }));
    building.zones.push({ ...place(element), base, height: element.shape.height ?? level.height, boundaries: sides });
  }
  for (const element of ofKind(elements, 'outdoor')) building.outdoor.push({ ...place(element), base });
}
