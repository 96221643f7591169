import type { ElementKind, Shapes } from '@/core/kinds/element';
import { millimetres, squareMetres } from '@/core/kinds/figures';
import { kinds, sizeWords } from '@/core/kinds/kinds';
import { shapedOf, type Candidate } from '@/core/reading/candidate';
import type { ReadingResult } from '@/core/reading/read';
import type { Role } from '@/core/sorting/roles';

const factsOfKind = <K extends ElementKind>(kind: K, shape: Shapes[K]): string => kinds[kind].facts(shape);

/** The size of a candidate in a few figures, for its line in the list. */
export const sizeOf = (candidate: Candidate): string =>
  candidate.kind === 'zone' ? squareMetres(candidate.areas.inner) : sizeWords(shapedOf(candidate));

/** What there is to say of a candidate beside its evidence. */
export function factsOf(candidate: Candidate): string {
  const facts = factsOfKind(candidate.kind, candidate.element);
  if (candidate.kind === 'wall') return `${facts}; drawn ${millimetres(candidate.raw.thickness)} thick`;
  if (candidate.kind !== 'zone') return facts;
  const { centre, outer } = candidate.areas;
  return `${facts}, ${squareMetres(centre)} by centre lines, ${squareMetres(outer)} by outer faces`;
}

/** Fewer lines than this say nothing about a layer. */
const fewest = 3;

/** Layers whose role is this kind's and of whose lines none was understood: what is on them contradicts their role. */
export function idleLayers(
  kind: ElementKind,
  result: Pick<ReadingResult, 'drawn' | 'unread'> | null,
): { layer: number; role: Role; count: number }[] {
  return kinds[kind].roles.own.flatMap((role) =>
    Object.entries(result?.drawn[role] ?? {}).flatMap(([layer, count]) => {
      const missed = new Set(
        result!.unread
          .filter((entry) => entry.role === role && entry.layer === Number(layer) && entry.words === undefined)
          .map(({ entity, handle }) => `${handle} ${entity}`),
      ).size;
      return count >= fewest && missed >= count ? [{ layer: Number(layer), role, count }] : [];
    }),
  );
}
