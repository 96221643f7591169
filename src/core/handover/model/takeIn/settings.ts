import { radians } from '@/core/geometry/vector';
import { usualMaterials, type Material } from '@/core/kinds/material';
import { bridgeKinds, plainSite, siteSettings, type SiteSettings } from '@/core/model/siteSettings';
import type { LibraryRow, ProjectRow } from '@/core/model/state';
import { plainStructure, type StructureSettings } from '@/core/model/structureSettings';
import type { ReadModel } from '../readModel';
import type { Ids, Told } from './ids';

type FileMaterial = NonNullable<ReadModel['materials']>[number];

/** What is taken where a material does not say a value, as the structural trial takes it. */
const plainMaterial = usualMaterials.find(({ id }) => id === 'C30/37')!;
const kindsOfMaterial = ['concrete', 'steel', 'timber', 'masonry'] as const;

function materialOf(row: FileMaterial): Material {
  const usual = usualMaterials.find(({ id }) => id === row.id) ?? plainMaterial;
  return {
    id: row.id,
    name: row.name ?? row.id,
    kind: kindsOfMaterial.find((kind) => kind === row.kind) ?? 'other',
    density: row.density ?? usual.density,
    youngsModulus: row.youngsModulus ?? usual.youngsModulus,
    poissonsRatio: row.poissonsRatio ?? usual.poissonsRatio,
    conductivity: row.conductivity ?? usual.conductivity,
  };
}

const valuesOf = ({ id, name, kind, density, youngsModulus, poissonsRatio, conductivity }: Material): string =>
  JSON.stringify([id, name, kind, density, youngsModulus, poissonsRatio, conductivity]);
const usualValues = new Set(usualMaterials.map(valuesOf));

/** What the structural trial starts from, where the file says something of it. */
export function structureOf({ materials = [], loadCases, combinations }: ReadModel): StructureSettings | null {
  const own = materials.map(materialOf).filter((row) => !usualValues.has(valuesOf(row)));
  if (loadCases === undefined && combinations === undefined && own.length === 0) return null;
  return {
    ...plainStructure,
    materials: own,
    cases:
      loadCases?.map(({ id, name, selfWeight }) => ({ id, name: name ?? id, selfWeight: selfWeight ?? 0 })) ??
      plainStructure.cases,
    combinations: combinations?.map(({ id, factors }) => ({ id, factors })) ?? [],
  };
}

/** The place, and what roofs are made of; as the program takes it where the file says nothing. */
export function siteOf({ site, roofs = [] }: ReadModel, ids: Ids, told: Told): SiteSettings | null {
  const [first] = roofs;
  const roof = ids.of('construction', first?.construction);
  for (const { id, construction } of roofs)
    if (construction !== first.construction)
      told.add(`Roof planes have one construction here, that of ${first.id}; other in the file`, id);
  if (site === undefined && roof === null) return null;
  const { bridges, areas, ...all } = site ?? {};
  const rest = Object.fromEntries(Object.entries(all).filter(([key]) => key in siteSettings.entries));
  return {
    ...plainSite,
    ...rest,
    ...(areas === 'inner' || areas === 'centre' || areas === 'outer' ? { areas } : {}),
    ...(bridges === undefined
      ? {}
      : {
          bridges: {
            ...bridges,
            ...Object.fromEntries(bridgeKinds.map((kind) => [kind, bridges[kind] ?? 0])),
          } as SiteSettings['bridges'],
        }),
    made: { ...plainSite.made, roof },
  };
}

export const surveyOf = ({ survey }: ReadModel): ProjectRow['survey'] =>
  survey === undefined
    ? null
    : {
        easting: survey.easting,
        northing: survey.northing,
        elevation: survey.elevation,
        north: radians(survey.north),
        ...(survey.system === undefined ? {} : { system: survey.system }),
      };

/** Sections, constructions and photometric files. */
export function libraryOf({ sections = [], constructions = [], photometries = [] }: ReadModel, ids: Ids) {
  return [
    ...sections.map(({ id, name, section }): LibraryRow => ({
      id: ids.give('section', id),
      name,
      kind: 'section',
      section,
    })),
    ...constructions.map((row): LibraryRow => {
      const id = ids.give('construction', row.id);
      if (row.kind === 'glazing') {
        const { name, kind, uValue, gValue, transmittance } = row;
        return { id, name, kind, uValue, gValue, transmittance };
      }
      const { name, kind, thickness, layers } = row;
      return { id, name, kind, thickness, layers };
    }),
    // Luminaires name their file.
    ...photometries.map(({ id, ies }): LibraryRow => ({
      id: ids.give('photometry', id),
      name: id,
      kind: 'photometry',
      ies,
    })),
  ];
}
