import { contains } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import { anchorOf } from '@/core/kinds/kinds';
import type { Source } from '@/core/kinds/element';
import { roofHeightAt } from '@/core/kinds/roof';
import type { At, Building, PlacedZone } from '@/core/resolved/building';
import type { StructureSettings } from '@/core/model/structureSettings';
import type { ModelFile } from './schema';
import { pair, ring, tidy, type SourceField } from './tidy';

type SourceOf = (source: Source | null) => SourceField;
type SpacePoint = [x: number, y: number, z: number];
type Load = NonNullable<ModelFile['loads']>[number];

/** What the usual load cases are called; another is called as it is. */
const caseNames: Record<string, string> = { G: 'Permanent', Q: 'Imposed', S: 'Snow', W: 'Wind' };
/** The case that the structure's own weight belongs to. */
const permanent = 'G';

const inSpace = (p: Point, z: number): SpacePoint => [...pair(p), tidy(z)];
const vector = ([x, y, z]: readonly [number, number, number]): SpacePoint => [tidy(x), tidy(y), tidy(z)];
const withHoles = (holes: readonly Point[][]) => (holes.length === 0 ? {} : { holes: holes.map(ring) });

function loadsOf({ pointLoads, lineLoads, areaLoads }: Building, sourceOf: SourceOf): Load[] {
  return [
    ...pointLoads.map(({ id, shape, z, source }): Load => ({
      id,
      case: shape.case,
      kind: 'point',
      position: inSpace(shape.position, z),
      force: vector(shape.force),
      moment: vector(shape.moment),
      ...sourceOf(source),
    })),
    ...lineLoads.map(({ id, shape, z, source }): Load => ({
      id,
      case: shape.case,
      kind: 'line',
      start: inSpace(shape.start, z),
      end: inSpace(shape.end, z),
      q: vector(shape.q),
      ...sourceOf(source),
    })),
    ...areaLoads.map(({ id, shape, storey, source }): Load => ({
      id,
      case: shape.case,
      kind: 'area',
      level: storey.level.id,
      outline: ring(shape.outline),
      ...withHoles(shape.holes),
      q: tidy(shape.q),
      ...sourceOf(source),
    })),
  ];
}

/**
 * The load cases that are said, and those that loads belong to beside them; where none is said the first is that of
 * permanent loads, with the structure's weight.
 */
function casesOf(loads: readonly Load[], said: StructureSettings['cases']): NonNullable<ModelFile['loadCases']> {
  const known = new Set(said.map(({ id }) => id));
  const named = loads.map((load) => load.case ?? permanent).sort();
  const ids = [...new Set(said.length === 0 ? [permanent, ...named] : named)].filter((id) => !known.has(id));
  const made = ids.map((id) => ({ id, name: caseNames[id] ?? id, selfWeight: id === permanent ? 1 : 0 }));
  return [...said, ...made];
}

/** The zone on the same storey that an area lies in, by its middle. */
function zoneAbout(area: At<'calculationArea'>, zones: readonly PlacedZone[]): { zone?: string } {
  const middle = anchorOf(area);
  const zone = zones.find(
    ({ storey, shape }) =>
      storey === area.storey &&
      middle !== null &&
      contains(shape.outline, middle) &&
      !shape.holes.some((hole) => contains(hole, middle)),
  );
  return zone === undefined ? {} : { zone: zone.id };
}

/** A part of the file, where there is something in it. */
const unlessEmpty = <K extends string, V>(key: K, values: readonly V[]): { [P in K]?: V[] } =>
  (values.length === 0 ? {} : { [key]: values }) as { [P in K]?: V[] };

/** What the calculation models start from besides the building itself: roofs, supports, loads, light, the ground. */
export function calculationParts(
  building: Building,
  { structure, roof }: { structure: StructureSettings | null; roof: string | null },
  sourceOf: SourceOf,
): Partial<ModelFile> {
  const loads = loadsOf(building, sourceOf);
  return {
    ...unlessEmpty(
      'roofs',
      building.roofs.map(({ id, storey, base, shape, source }) => ({
        id,
        level: storey.level.id,
        outline: shape.outline.map((p) => inSpace(p, base + roofHeightAt(shape, p))),
        slope: tidy(shape.slope),
        direction: tidy(shape.direction),
        thickness: tidy(shape.thickness),
        // Roof planes have no entry of their own: they are what roofs are by rule.
        ...(roof === null ? {} : { construction: roof }),
        ...sourceOf(source),
      })),
    ),
    ...unlessEmpty(
      'supports',
      building.supports.map(({ id, shape, z, source }) => ({
        id,
        position: inSpace(shape.position, z),
        fixed: shape.fixed,
        ...sourceOf(source),
      })),
    ),
    ...(loads.length === 0 && structure === null ? {} : { loadCases: casesOf(loads, structure?.cases ?? []) }),
    ...unlessEmpty('combinations', structure?.combinations ?? []),
    ...unlessEmpty('loads', loads),
    ...unlessEmpty(
      'luminaires',
      building.luminaires.map(({ id, shape, z, source }) => ({
        id,
        photometry: shape.photometry,
        position: inSpace(shape.position, z),
        rotation: tidy(shape.rotation),
        tilt: tidy(shape.tilt),
        output: tidy(shape.output),
        ...sourceOf(source),
      })),
    ),
    ...unlessEmpty(
      'terrain',
      building.contours.map(({ id, shape, source }) => ({
        id,
        points: shape.points.map(pair),
        elevation: tidy(shape.elevation),
        ...sourceOf(source),
      })),
    ),
    ...unlessEmpty(
      'calculationAreas',
      building.calculationAreas.map((area) => ({
        id: area.id,
        ...zoneAbout(area, building.zones),
        ...(area.shape.name === '' ? {} : { name: area.shape.name }),
        outline: ring(area.shape.outline),
        ...withHoles(area.shape.holes),
        z: tidy(area.z),
        ...(area.shape.spacing === null ? {} : { spacing: tidy(area.shape.spacing) }),
        ...sourceOf(area.source),
      })),
    ),
  };
}
