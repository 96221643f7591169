import { radians } from '@/core/geometry/vector';
import type { ReadModel } from '@/core/handover/model/readModel';
import { globalId } from './globalId';
import { Shapes } from './shapes';
import { derived, whole, word, type Ref, type StepFile } from './step';

/** The frame that all products hang in: the project, its building and its storeys. */
export interface Frame {
  file: StepFile;
  shapes: Shapes;
  project: Ref;
  site: Ref;
  building: Ref;
  /** Of the building: the project's zero. */
  placement: Ref;
  storeys: Map<string, Storey>;
}

/** A storey with its placement and its elevation. */
export interface Storey {
  ref: Ref;
  place: Ref;
  elevation: number;
}

/** SI units: metres, square and cubic metres, radians, kilograms, kelvins, newtons, watts and what is made of them. */
function unitsOf(file: StepFile): Ref {
  const si = (kind: string, name: string, prefix: string | null = null): Ref =>
    file.add('IFCSIUNIT', derived, word(kind), prefix === null ? null : word(prefix), word(name));
  const metre = si('LENGTHUNIT', 'METRE');
  const kelvin = si('THERMODYNAMICTEMPERATUREUNIT', 'KELVIN');
  const watt = si('POWERUNIT', 'WATT');
  const part = (unit: Ref, exponent: number): Ref => file.add('IFCDERIVEDUNITELEMENT', unit, whole(exponent));
  const uValue = file.add(
    'IFCDERIVEDUNIT',
    [part(watt, 1), part(metre, -2), part(kelvin, -1)],
    word('THERMALTRANSMITTANCEUNIT'),
    null,
  );
  const units = [
    metre,
    si('AREAUNIT', 'SQUARE_METRE'),
    si('VOLUMEUNIT', 'CUBIC_METRE'),
    si('PLANEANGLEUNIT', 'RADIAN'),
    si('MASSUNIT', 'GRAM', 'KILO'),
    si('TIMEUNIT', 'SECOND'),
    si('FORCEUNIT', 'NEWTON'),
    si('PRESSUREUNIT', 'PASCAL'),
    kelvin,
    watt,
    uValue,
  ];
  return file.add('IFCUNITASSIGNMENT', units);
}

/** The project, site, building and storeys of a model. */
export function frameOf(file: StepFile, model: ReadModel, name: string): Frame {
  const shapes = new Shapes(file);
  const units = unitsOf(file);
  const id = (of: string): string => globalId(`${name} ${of}`);
  const project = file.add('IFCPROJECT', id('project'), null, name, null, null, null, null, [shapes.context], units);
  mapConversion(file, shapes, model);
  const sitePlace = shapes.placement(null, shapes.origin);
  const site = file.add(
    'IFCSITE',
    id('site'),
    null,
    'Site',
    null,
    null,
    sitePlace,
    null,
    null,
    word('ELEMENT'),
    null,
    null,
    model.survey === undefined ? null : model.survey.elevation,
    null,
    null,
  );
  const place = shapes.placement(sitePlace, shapes.origin);
  const building = file.add(
    'IFCBUILDING',
    id('building'),
    null,
    name,
    null,
    null,
    place,
    null,
    null,
    word('ELEMENT'),
    null,
    null,
    null,
  );
  const storeys = new Map<string, Storey>();
  for (const level of [...model.levels].sort((a, b) => a.elevation - b.elevation)) {
    const own = shapes.placement(place, shapes.place([0, 0, level.elevation]));
    const ref = file.add(
      'IFCBUILDINGSTOREY',
      globalId(level.id),
      null,
      level.name,
      null,
      null,
      own,
      null,
      null,
      word('ELEMENT'),
      level.elevation,
    );
    storeys.set(level.id, { ref, place: own, elevation: level.elevation });
  }
  const aggregate = (of: string, relating: Ref, parts: readonly Ref[]): void => {
    if (parts.length > 0) file.add('IFCRELAGGREGATES', id(of), null, null, null, relating, [...parts]);
  };
  aggregate('project-site', project, [site]);
  aggregate('site-building', site, [building]);
  aggregate(
    'building-storeys',
    building,
    [...storeys.values()].map(({ ref }) => ref),
  );
  return { file, shapes, project, site, building, placement: place, storeys };
}

/** Where the project lies in the survey: the reference system is the survey's own, as its office names it. */
function mapConversion(file: StepFile, shapes: Shapes, { survey }: ReadModel): void {
  if (survey === undefined) return;
  const turn = radians(survey.north);
  const system = file.add(
    'IFCPROJECTEDCRS',
    survey.system || 'Survey of the project',
    null,
    null,
    null,
    null,
    null,
    null,
  );
  file.add(
    'IFCMAPCONVERSION',
    shapes.context,
    system,
    survey.easting,
    survey.northing,
    survey.elevation,
    Math.cos(turn),
    Math.sin(turn),
    1,
  );
}
