import { arcOfBulge } from '@/core/geometry/bulge';
import { area } from '@/core/geometry/polygon';
import { sectionName, type ElementKind, type Wall } from '@/core/model/elements';
import type { Candidate } from '@/core/reading/candidate';
import type { ReadingResult } from '@/core/reading/read';
import type { Role } from '@/core/sorting/roles';

const metres = (value: number): string => `${value.toFixed(2)} m`;
const mm = (value: number): string => `${(value * 1000).toFixed(0)} mm`;
const squareMetres = (value: number): string => `${value.toFixed(2)} m\u00b2`;
const span = ([x1, y1]: readonly [number, number], [x2, y2]: readonly [number, number]): number =>
  Math.hypot(x2 - x1, y2 - y1);

/** How long a wall is along its centre line, metres. */
function lengthOf({ start, end, bulge }: Wall): number {
  if (bulge === 0) return span(start, end);
  const { radius, sweep } = arcOfBulge(start, end, bulge);
  return radius * Math.abs(sweep);
}

/** The size of a candidate in a few figures, for its line in the list. */
export function sizeOf(candidate: Candidate): string {
  switch (candidate.kind) {
    case 'grid':
      return candidate.element.kind === 'line'
        ? metres(span(candidate.element.start, candidate.element.end))
        : `radius ${metres(candidate.element.radius)}`;
    case 'column':
    case 'beam':
      return sectionName(candidate.element.section);
    case 'wall':
      return `${mm(candidate.element.thickness)}, ${metres(lengthOf(candidate.element))}`;
    case 'opening':
      return metres(candidate.element.width);
    case 'zone':
      return squareMetres(candidate.areas.inner);
    default:
      return squareMetres(Math.abs(area(candidate.element.outline)));
  }
}

/** What there is to say of a candidate beside its evidence. */
export function factsOf(candidate: Candidate): string {
  switch (candidate.kind) {
    case 'beam':
      return `${metres(span(candidate.element.start, candidate.element.end))} from support to support, ${sectionName(candidate.element.section)} mm`;
    case 'wall':
      return `${metres(lengthOf(candidate.element))} between its nodes, drawn ${mm(candidate.raw.thickness)} thick${candidate.element.outer ? ', outside on one side' : ''}`;
    case 'opening':
      return `${metres(candidate.element.width)} wide, ${metres(candidate.element.offset)} from its wall\u2019s start, ${metres(candidate.element.height)} high${candidate.element.sill > 0 ? `, sill at ${metres(candidate.element.sill)}` : ''}`;
    case 'zone':
      return `${[candidate.element.number, candidate.element.name].filter(Boolean).join(' ') || 'Without a name'}: ${squareMetres(candidate.areas.inner)} by inner faces, ${squareMetres(candidate.areas.centre)} by centre lines, ${squareMetres(candidate.areas.outer)} by outer faces`;
    case 'slab':
      return `${squareMetres(Math.abs(area(candidate.element.outline)))}, ${mm(candidate.element.thickness)} thick, ${candidate.element.holes.length} openings`;
    case 'outdoor':
      return `${squareMetres(Math.abs(area(candidate.element.outline)))}, ${metres(candidate.element.height)} high`;
    default:
      return '';
  }
}

/** The roles whose lines are this kind's to account for. */
export const ownRoles: Record<ElementKind, readonly Role[]> = {
  grid: ['grid'],
  column: ['column'],
  beam: ['beam'],
  wall: ['wall'],
  opening: ['door', 'window'],
  slab: ['slab', 'slabOpening'],
  zone: [],
  outdoor: ['outdoor'],
};

/** Fewer lines than this say nothing about a layer. */
const fewest = 3;

/** Layers whose role is this kind's and of whose lines none was understood: what is on them contradicts their role. */
export function idleLayers(
  kind: ElementKind,
  result: Pick<ReadingResult, 'drawn' | 'unread'> | null,
): { layer: number; role: Role; count: number }[] {
  return ownRoles[kind].flatMap((role) =>
    Object.entries(result?.drawn[role] ?? {}).flatMap(([layer, count]) => {
      const missed = new Set(
        result!.unread
          .filter((entry) => entry.role === role && entry.layer === Number(layer))
          .map(({ entity, handle }) => `${handle} ${entity}`),
      ).size;
      return count >= fewest && missed >= count ? [{ layer: Number(layer), role, count }] : [];
    }),
  );
}

/** The roles that a kind is read from. */
export const rolesOfKind: Record<ElementKind, readonly Role[]> = {
  grid: ['grid'],
  column: ['column'],
  beam: ['beam'],
  wall: ['wall'],
  opening: ['door', 'window', 'wall'],
  slab: ['slab', 'slabOpening', 'wall'],
  zone: ['zone', 'wall'],
  outdoor: ['outdoor'],
};
