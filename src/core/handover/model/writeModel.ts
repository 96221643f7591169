import { degrees } from '@/core/geometry/vector';
import type { Survey } from '@/core/datum/survey';
import type { Source } from '@/core/kinds/element';
import type { GridLine } from '@/core/kinds/grid';
import type { Section } from '@/core/kinds/section';
import { usualMaterials } from '@/core/kinds/material';
import { uValueOf, type LibraryRow } from '@/core/model/library';
import { plainSite, type SiteSettings } from '@/core/model/siteSettings';
import { plainStructure, type StructureSettings } from '@/core/model/structureSettings';
import { areaOf } from '@/core/kinds/areas';
import { tiesOf } from '@/core/kinds/tie';
import type { Building, Placed, PlacedColumn, PlacedZone, Storey } from '@/core/resolved/building';
import { calculationParts } from './calculationParts';
import type { ElementKind } from '@/core/kinds/element';
import type { ModelFile } from './schema';
import { pair, ring, tidy, type SourceField } from './tidy';

/**
 * What is handed over: the building, the library of sections and constructions, the name of each drawing that is a
 * source, and where the survey has the project.
 */
export interface HandoverInput {
  building: Building;
  survey?: Survey | null;
  library?: readonly LibraryRow[];
  /** What the structural trial starts from beside the elements. */
  structure?: StructureSettings | null;
  /** What the trial of heat starts from beside the elements. */
  site?: SiteSettings | null;
  drawingName: (id: string) => string;
}

/** A hollow section tells the thickness of its walls. */
const wallsOf = ({ wall }: { wall?: number }) => (wall === undefined ? {} : { wall: tidy(wall) });

function sectionOf(section: Section): ModelFile['columns'][number]['section'] {
  if (section.shape === 'polygon') return { shape: 'polygon', outline: ring(section.outline) };
  if (section.shape === 'circle') return { shape: 'circle', diameter: tidy(section.diameter), ...wallsOf(section) };
  return { shape: 'rectangle', width: tidy(section.width), depth: tidy(section.depth), ...wallsOf(section) };
}

/** The library's sections, constructions and photometric files, where there are any. */
function libraryParts(library: readonly LibraryRow[]): Pick<ModelFile, 'sections' | 'constructions' | 'photometries'> {
  const [sections, constructions]: [NonNullable<ModelFile['sections']>, NonNullable<ModelFile['constructions']>] = [
    [],
    [],
  ];
  const photometries: NonNullable<ModelFile['photometries']> = [];
  for (const row of [...library].sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }))) {
    const { id, name } = row;
    if (row.kind === 'section') sections.push({ id, name, section: sectionOf(row.section) });
    // Luminaires name their file.
    else if (row.kind === 'photometry') photometries.push({ id: name, name, ies: row.ies });
    else if (row.kind === 'glazing')
      constructions.push({
        id,
        name,
        kind: row.kind,
        uValue: row.uValue,
        gValue: row.gValue,
        transmittance: row.transmittance,
      });
    else {
      const uValue = uValueOf(row);
      constructions.push({
        id,
        name,
        kind: row.kind,
        thickness: tidy(row.thickness),
        layers: row.layers.map((layer) => ({ ...layer, thickness: tidy(layer.thickness) })),
        uValue: uValue === null ? null : tidy(uValue),
      });
    }
  }
  return {
    ...(sections.length > 0 ? { sections } : {}),
    ...(constructions.length > 0 ? { constructions } : {}),
    ...(photometries.length > 0 ? { photometries } : {}),
  };
}

/** Writes model.json, version 1: the building with unique ids on every storey. */
export function writeModel({
  building,
  survey = null,
  library = [],
  structure = null,
  site = null,
  drawingName,
}: HandoverInput): ModelFile {
  const sourceOf = (source: Source | null): SourceField =>
    source ? { source: { drawing: drawingName(source.drawing), handles: source.handles } } : {};
  const made = structure?.made ?? plainStructure.made;
  return {
    format: 'zircon-frame-model',
    version: 1,
    unit: 'm',
    levels: building.storeys.map(levelPart),
    ...(survey ? { survey: surveyPart(survey) } : {}),
    ...materialParts(building, structure),
    ...libraryParts(library),
    grids: building.grids.map(({ id, shape, source }) => ({ id, ...gridPart(shape), ...sourceOf(source) })),
    ...(site === null ? {} : { site: sitePart(site) }),
    ...elementParts(building, { made, constructions: site?.made ?? plainSite.made, said: saidIn(library) }, sourceOf),
    ...calculationParts(building, { structure, roof: site?.made.roof ?? null }, sourceOf),
  };
}

const levelPart = ({ level, structuralTop }: Storey): ModelFile['levels'][number] => ({
  id: level.id,
  name: level.name,
  elevation: tidy(level.elevation),
  height: tidy(level.height),
  kind: level.kind,
  structuralTop: tidy(structuralTop),
  slabThickness: tidy(level.slab),
  ...(level.repeats === null ? {} : { repeats: level.repeats }),
});

const surveyPart = ({ easting, northing, elevation, north, system }: Survey): NonNullable<ModelFile['survey']> => ({
  easting: tidy(easting),
  northing: tidy(northing),
  elevation: tidy(elevation),
  north: tidy(degrees(north)),
  ...(system === undefined || system === '' ? {} : { system }),
});

function gridPart(line: GridLine) {
  if (line.kind === 'line') return { label: line.label, kind: line.kind, start: pair(line.start), end: pair(line.end) };
  const { label, kind, centre, radius, startAngle, endAngle } = line;
  return {
    label,
    kind,
    centre: pair(centre),
    radius: tidy(radius),
    startAngle: tidy(startAngle),
    endAngle: tidy(endAngle),
  };
}

/** What a project's materials are, its own before the usual ones, as far as something is made of them. */
function materialParts(building: Building, structure: StructureSettings | null): Pick<ModelFile, 'materials'> {
  const { materials, made } = structure ?? plainStructure;
  const used = new Set<string | null | undefined>([
    ...Object.values(made),
    ...[...building.columns, ...building.beams, ...building.walls, ...building.slabs].map(
      ({ shape }) => shape.material,
    ),
  ]);
  const own = new Set(materials.map(({ id }) => id));
  const known = [...materials, ...usualMaterials.filter(({ id }) => !own.has(id))].filter(({ id }) => used.has(id));
  return known.length === 0 ? {} : { materials: known.map((one) => ({ ...one })) };
}

/** A zone of which more than this is under no roof has no volume, square metres. */
const leastUncovered = 1e-4;

/** What everything on a storey tells of itself. */
const commonOf = ({ id, storey }: Pick<Placed<ElementKind>, 'id' | 'storey'>) => ({ id, level: storey.level.id });
const sizedBy = (libraryId?: string | null) => (libraryId ? { sectionId: libraryId } : {});
const madeOf = (material?: string | null) => (material ? { material } : {});
const constructedBy = (libraryId?: string | null) => (libraryId ? { construction: libraryId } : {});

type ElementParts = Pick<ModelFile, 'columns' | 'beams' | 'walls' | 'openings' | 'slabs' | 'zones' | 'outdoor'>;

/** Elevations of what does not stand from its storey's floor to its top. */
const endsOf = ({ base, top, storey }: Pick<PlacedColumn, 'base' | 'top' | 'storey'>) => ({
  ...(tidy(base) === tidy(storey.base) ? {} : { base: tidy(base) }),
  ...(tidy(top) === tidy(storey.top) ? {} : { top: tidy(top) }),
});

/** What a zone under a roof holds; its clear height is the mean of it. */
const underRoofOf = ({ underRoofs, shape }: PlacedZone) =>
  underRoofs === null || underRoofs.covered === 0
    ? {}
    : {
        clearHeight: tidy(underRoofs.volume / underRoofs.covered),
        ...(underRoofs.covered < areaOf(shape) - leastUncovered ? {} : { volume: tidy(underRoofs.volume) }),
        roofs: underRoofs.roofs,
      };

/** What elements are made of where they do not say it themselves. */
interface Rules {
  made: StructureSettings['made'];
  constructions: SiteSettings['made'];
  /** The construction of an element: its own where that has layers, else the one by rule. */
  said: (own: string | null | undefined, rule: string | null) => string | null | undefined;
}

/** An entry that only names a size has no layers: it says nothing of what a surface is. */
function saidIn(library: readonly LibraryRow[]): Rules['said'] {
  const bare = new Set(library.flatMap((row) => ('layers' in row && row.layers.length === 0 ? [row.id] : [])));
  return (own, rule) => (own != null && !bare.has(own) ? own : (rule ?? own));
}

/** The place, without the rules that its elements tell themselves. */
const sitePart = ({
  made: _,
  profiles: _profiles,
  rules: _rules,
  ...site
}: SiteSettings): NonNullable<ModelFile['site']> => site;

function elementParts(
  building: Building,
  { made, constructions, said }: Rules,
  sourceOf: (source: Source | null) => SourceField,
): ElementParts {
  return {
    columns: building.columns.map((column) => ({
      ...commonOf(column),
      position: pair(column.shape.position),
      rotation: tidy(column.shape.rotation),
      section: sectionOf(column.shape.section),
      ...sizedBy(column.libraryId),
      ...madeOf(column.shape.material ?? made.column),
      mark: column.shape.mark,
      ...endsOf(column),
      ...sourceOf(column.source),
    })),
    beams: building.beams.map((beam) => ({
      ...commonOf(beam),
      start: [...pair(beam.shape.start), tidy(beam.startTop)],
      end: [...pair(beam.shape.end), tidy(beam.endTop)],
      justification: beam.shape.justification ?? 'centre',
      ...(beam.shape.angle ? { angle: tidy(beam.shape.angle) } : {}),
      ...(beam.shape.use === undefined || beam.shape.use === 'beam' ? {} : { use: beam.shape.use }),
      section: sectionOf(beam.shape.section),
      ...sizedBy(beam.libraryId),
      ...madeOf(beam.shape.material ?? made.beam),
      ...(beam.shape.releases === undefined ? {} : { releases: beam.shape.releases }),
      mark: beam.shape.mark,
      ...sourceOf(beam.source),
    })),
    walls: building.walls.map((wall) => ({
      ...commonOf(wall),
      start: pair(wall.shape.start),
      end: pair(wall.shape.end),
      thickness: tidy(wall.shape.thickness),
      ...constructedBy(said(wall.libraryId, constructions[wall.shape.outer ? 'outerWall' : 'innerWall'])),
      ...madeOf(wall.shape.material ?? made.wall),
      height: tidy(wall.top - wall.base),
      ...(tiesOf(wall).base === undefined && tiesOf(wall).top === undefined ? {} : endsOf(wall)),
      ...(wall.profile === null ? {} : { profile: wall.profile.map(pair) }),
      bulge: tidy(wall.shape.bulge),
      outer: wall.shape.outer,
      ...(wall.shape.bearing === undefined ? {} : { bearing: wall.shape.bearing }),
      ...(wall.shape.beyond === undefined ? {} : { beyond: wall.shape.beyond }),
      ...sourceOf(wall.source),
    })),
    openings: building.walls.flatMap(({ openings }) =>
      openings.map((opening) => ({
        id: opening.id,
        wall: opening.wall,
        kind: opening.shape.use,
        offset: tidy(opening.shape.offset),
        width: tidy(opening.shape.width),
        height: tidy(opening.shape.height),
        sill: tidy(opening.shape.sill),
        ...(opening.shape.shading === undefined ? {} : { shading: opening.shape.shading }),
        ...constructedBy(said(opening.libraryId, constructions[opening.shape.use])),
        ...sourceOf(opening.source),
      })),
    ),
    slabs: building.slabs.map((slab) => ({
      ...commonOf(slab),
      outline: ring(slab.shape.outline),
      holes: slab.shape.holes.map(ring),
      thickness: tidy(slab.shape.thickness),
      top: tidy(slab.top),
      ...constructedBy(said(slab.libraryId, constructions[slab.storey.level.kind === 'roof' ? 'roof' : 'floor'])),
      ...madeOf(slab.shape.material ?? made.slab),
      ...(slab.shape.span === undefined ? {} : { span: tidy(slab.shape.span) }),
      ...(slab.shape.diaphragm === undefined ? {} : { diaphragm: slab.shape.diaphragm }),
      ...(slab.shape.beyond === undefined ? {} : { beyond: slab.shape.beyond }),
      ...sourceOf(slab.source),
    })),
    zones: building.zones.map((zone) => ({
      ...commonOf(zone),
      name: zone.shape.name,
      number: zone.shape.number,
      outline: ring(zone.shape.outline),
      holes: zone.shape.holes.map(ring),
      height: tidy(zone.height),
      ...(zone.shape.use === undefined ? {} : { use: zone.shape.use }),
      ...(zone.shape.temperature === undefined ? {} : { temperature: zone.shape.temperature }),
      ...(zone.shape.airChange === undefined ? {} : { airChange: zone.shape.airChange }),
      ...(zone.shape.neighbour === undefined ? {} : { neighbour: zone.shape.neighbour }),
      ...(zone.shape.system === undefined ? {} : { system: zone.shape.system }),
      ...(zone.shape.gains === undefined ? {} : { gains: zone.shape.gains }),
      ...(zone.shape.reflectances === undefined ? {} : { reflectances: zone.shape.reflectances }),
      ...underRoofOf(zone),
      boundaries: zone.boundaries.map((side) => ({ ...side, length: tidy(side.length) })),
      ...sourceOf(zone.source),
    })),
    outdoor: building.outdoor.map((surface) => ({
      ...commonOf(surface),
      name: surface.shape.name,
      outline: ring(surface.shape.outline),
      height: tidy(surface.shape.height),
      ...(surface.shape.use === undefined ? {} : { use: surface.shape.use }),
      ...(surface.shape.reflectance === undefined ? {} : { reflectance: tidy(surface.shape.reflectance) }),
      ...(surface.shape.lux === undefined ? {} : { lux: tidy(surface.shape.lux) }),
      ...sourceOf(surface.source),
    })),
  };
}
