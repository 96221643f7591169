import { groupBy } from '@/core/groupBy';
import { dropsOf } from '@/core/kinds/beam';
import type { ElementKind, ElementOf, ElementRow } from '@/core/kinds/element';
import { tiesOf } from '@/core/kinds/tie';
import type { Boundary } from './boundaries';
import type { At, Building, Placed, PlacedOpening, PlacedRoof, PlacedWall, PlacedZone, Storey } from './building';
import type { Ties } from './heights';
import { roofOver, undersideAt, volumeUnder, wallProfile } from './roofs';

/** The elements of a kind. */
export const ofKind = <K extends ElementKind>(elements: readonly ElementRow[], kind: K): ElementOf<K>[] =>
  elements.filter((element) => element.kind === kind) as unknown as ElementOf<K>[];

/** On a storey that repeats another an element has an id of its own. */
const idOn = ({ level }: Storey, id: string): string => (level.repeats === null ? id : `${id}@${level.id}`);

/** An element as it stands on a storey. */
const placed = <K extends ElementKind>({ levelId: _, ...element }: ElementOf<K>, storey: Storey): Placed<K> => ({
  ...element,
  id: idOn(storey, element.id),
  elementId: element.id,
  storey,
});

/** The roof planes of a storey. */
export const roofsOf = (storey: Storey, elements: readonly ElementRow[]): PlacedRoof[] =>
  ofKind(elements, 'roof').map((element) => ({ ...placed(element, storey), base: storey.base }));

/** Puts the elements of a level, or of the level that it repeats, on a storey; its roofs are there already. */
export function addStorey(
  building: Building,
  ties: Ties,
  storey: Storey,
  elements: readonly ElementRow[],
  boundaries: ReadonlyMap<string, Boundary[]> = new Map(),
): void {
  const byKind = groupBy(elements, ({ kind }) => kind);
  const of = <K extends ElementKind>(kind: K): ElementOf<K>[] => ofKind(byKind.get(kind) ?? [], kind);
  const place = <K extends ElementKind>(element: ElementOf<K>): Placed<K> => placed(element, storey);
  const { base, top, structuralTop } = storey;

  building.walls.push(...wallsOf(building.roofs, ties, storey, of('wall'), of('opening')));
  for (const element of of('column')) {
    const foot = ties.heightOf(tiesOf(element).base, storeyLevel(element), storey) ?? base;
    const roof = tiesOf(element).top === 'roof' ? roofOver(building.roofs, element.shape.position, foot) : null;
    const head = ties.heightOf(tiesOf(element).top, storeyLevel(element), storey) ?? top;
    const under = roof === null ? head : undersideAt(roof, element.shape.position);
    building.columns.push({ ...place(element), base: foot, top: under });
  }
  for (const element of of('beam')) {
    const [start, end] = dropsOf(element.shape);
    const height = (tied: 'start' | 'end', plain: number): number =>
      ties.heightOf(tiesOf(element)[tied], storeyLevel(element), storey) ?? plain;
    building.beams.push({
      ...place(element),
      startTop: height('start', top - start),
      endTop: height('end', top - end),
    });
  }
  for (const element of of('slab')) building.slabs.push({ ...place(element), top: structuralTop });
  for (const element of of('zone'))
    building.zones.push(zoneOn(building.roofs, ties, storey, element, boundaries.get(element.id) ?? []));
  for (const element of of('outdoor')) building.outdoor.push({ ...place(element), base });
  for (const element of of('areaLoad')) building.areaLoads.push({ ...place(element), z: structuralTop });
  building.supports.push(...risen(of('support'), storey));
  building.pointLoads.push(...risen(of('pointLoad'), storey));
  building.lineLoads.push(...risen(of('lineLoad'), storey));
  building.luminaires.push(...risen(of('luminaire'), storey));
  building.calculationAreas.push(...risen(of('calculationArea'), storey));
}

/** What is placed has a level: what has none is told before. */
const storeyLevel = ({ levelId }: { levelId: string | null }): string => levelId ?? '';

/** What lies so far above its level. */
const risen = <K extends 'support' | 'pointLoad' | 'lineLoad' | 'luminaire' | 'calculationArea'>(
  elements: readonly ElementOf<K>[],
  storey: Storey,
): At<K>[] => elements.map((element) => ({ ...placed(element, storey), z: storey.base + element.shape.rise }));

function wallsOf(
  roofs: readonly PlacedRoof[],
  ties: Ties,
  storey: Storey,
  elements: readonly ElementOf<'wall'>[],
  openings: readonly ElementOf<'opening'>[],
): PlacedWall[] {
  const walls = new Map<string, PlacedWall>();
  for (const element of elements) {
    const { base: foot, top: head } = tiesOf(element);
    const base = ties.heightOf(foot, storeyLevel(element), storey) ?? storey.base;
    const own = element.shape.height;
    const plain = ties.heightOf(head, storeyLevel(element), storey) ?? (own === null ? storey.top : base + own);
    const profile = head === 'roof' ? wallProfile(element.shape, roofs, base, plain) : null;
    const top = profile === null ? plain : Math.max(...profile.map(([, z]) => z));
    walls.set(element.id, { ...placed(element, storey), base, top, profile, openings: [] });
  }
  for (const element of openings) {
    const opening: PlacedOpening = { ...placed(element, storey), wall: idOn(storey, element.shape.wall) };
    walls.get(element.shape.wall)?.openings.push(opening);
  }
  return [...walls.values()];
}

function zoneOn(
  roofs: readonly PlacedRoof[],
  ties: Ties,
  storey: Storey,
  element: ElementOf<'zone'>,
  sides: readonly Boundary[],
): PlacedZone {
  const { base, level } = storey;
  const { top } = tiesOf(element);
  const head = ties.heightOf(top, storeyLevel(element), storey);
  const { outline, holes, height } = element.shape;
  return {
    ...placed(element, storey),
    base,
    height: head === null ? (height ?? level.height) : head - base,
    underRoofs: top === 'roof' ? volumeUnder([{ outline, holes }], roofs, base) : null,
    boundaries: sides.map((side) => ({
      ...side,
      wall: idOn(storey, side.wall),
      beyond: side.beyond === null ? null : idOn(storey, side.beyond),
      openings: side.openings.map((id) => idOn(storey, id)),
    })),
  };
}
