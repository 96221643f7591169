import type { ElementRow } from '@/core/kinds/element';
import type { Section } from '@/core/kinds/section';
import type { Survey } from '@/core/datum/survey';
import { degrees, type Point } from '@/core/geometry/vector';
import { boundariesOf } from '@/core/model/boundaries';
import { structuralTop } from '@/core/model/levels';
import { uValueOf, type LibraryRow } from '@/core/model/library';
import type { LevelRow } from '@/core/model/state';
import type { ModelFile } from './schema';

/**
 * What is handed over: levels, the library of sections and constructions, elements, the name of each drawing that is a
 * source, and where the survey has the project.
 */
export interface HandoverInput {
  survey?: Survey | null;
  levels: readonly LevelRow[];
  library?: readonly LibraryRow[];
  elements: readonly ElementRow[];
  drawingName: (id: string) => string;
}

/**
 * Lengths to a tenth of a micrometre and angles to a billionth of a degree: the noise of the last digits goes, the
 * number stays.
 */
const tidy = (value: number) => Number(value.toFixed(9)) + 0;

const pair = ([x, y]: readonly [number, number]): [number, number] => [tidy(x), tidy(y)];

const sectionOf = (section: Section) =>
  section.shape === 'polygon'
    ? { shape: section.shape, outline: section.outline.map(pair) }
    : section.shape === 'circle'
      ? { shape: section.shape, diameter: tidy(section.diameter) }
      : { shape: section.shape, width: tidy(section.width), depth: tidy(section.depth) };

/** The library's sections and constructions, where there are any. */
function libraryParts(library: readonly LibraryRow[]): Pick<ModelFile, 'sections' | 'constructions'> {
  const [sections, constructions]: [NonNullable<ModelFile['sections']>, NonNullable<ModelFile['constructions']>] = [
    [],
    [],
  ];
  for (const row of [...library].sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }))) {
    const { id, name } = row;
    if (row.kind === 'section') sections.push({ id, name, section: sectionOf(row.section) });
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
  return { ...(sections.length > 0 ? { sections } : {}), ...(constructions.length > 0 ? { constructions } : {}) };
}

/** The model as model.json, version 1: metres, degrees, the project's coordinates. */
export function writeModel({ levels, library = [], elements, drawingName, survey }: HandoverInput): ModelFile {
  const source = (element: ElementRow) =>
    element.source ? { source: { drawing: drawingName(element.source.drawing), handles: element.source.handles } } : {};
  const ordered = [...levels].sort((a, b) => a.elevation - b.elevation);
  const file: ModelFile = {
    format: 'zircon-frame-model',
    version: 1,
    unit: 'm',
    levels: ordered.map((level) => ({
      id: level.id,
      name: level.name,
      elevation: tidy(level.elevation),
      height: tidy(level.height),
      kind: level.kind,
      structuralTop: tidy(structuralTop(level)),
      slabThickness: tidy(level.slab),
      ...(level.repeats === null ? {} : { repeats: level.repeats }),
    })),
    ...(survey
      ? {
          survey: {
            easting: tidy(survey.easting),
            northing: tidy(survey.northing),
            elevation: tidy(survey.elevation),
            north: tidy(degrees(survey.north)),
          },
        }
      : {}),
    ...libraryParts(library),
    grids: [],
    columns: [],
    beams: [],
    walls: [],
    openings: [],
    slabs: [],
    zones: [],
    outdoor: [],
  };
  const ring = (points: readonly Point[]) => points.map(pair);
  const add = (element: ElementRow, level: LevelRow | undefined, idOf: (id: string) => string) => {
    const common = { id: idOf(element.id), level: level?.id ?? '' };
    const top = level ? level.elevation + level.height : 0;
    const from = source(element);
    const [section, construction] = element.libraryId
      ? [{ sectionId: element.libraryId }, { construction: element.libraryId }]
      : [{}, {}];
    switch (element.kind) {
      case 'grid':
        break;
      case 'column': {
        const { position, rotation, mark } = element.shape;
        file.columns.push({
          ...common,
          position: pair(position),
          rotation: tidy(rotation),
          section: sectionOf(element.shape.section),
          ...section,
          mark,
          ...from,
        });
        break;
      }
      case 'beam': {
        const { start, end, mark, drop = 0, justification = 'centre' } = element.shape;
        file.beams.push({
          ...common,
          start: [...pair(start), tidy(top - drop)],
          end: [...pair(end), tidy(top - drop)],
          justification,
          section: sectionOf(element.shape.section),
          ...section,
          mark,
          ...from,
        });
        break;
      }
      case 'wall': {
        const { start, end, thickness, height, bulge, outer } = element.shape;
        file.walls.push({
          ...common,
          start: pair(start),
          end: pair(end),
          thickness: tidy(thickness),
          ...construction,
          height: tidy(height ?? level?.height ?? 0),
          bulge: tidy(bulge),
          outer,
          ...from,
        });
        break;
      }
      case 'opening': {
        const { wall, use, offset, width, height, sill } = element.shape;
        file.openings.push({
          id: common.id,
          wall: idOf(wall),
          kind: use,
          offset: tidy(offset),
          width: tidy(width),
          height: tidy(height),
          sill: tidy(sill),
          ...construction,
          ...from,
        });
        break;
      }
      case 'slab': {
        const { outline, holes, thickness } = element.shape;
        file.slabs.push({
          ...common,
          outline: ring(outline),
          holes: holes.map(ring),
          thickness: tidy(thickness),
          top: tidy(level ? structuralTop(level) : 0),
          ...construction,
          ...from,
        });
        break;
      }
      case 'zone': {
        const { name, number, outline, holes, height } = element.shape;
        file.zones.push({
          ...common,
          name,
          number,
          outline: ring(outline),
          holes: holes.map(ring),
          height: tidy(height ?? level?.height ?? 0),
          boundaries: (bounded.get(element.id) ?? []).map((side) => ({
            wall: idOf(side.wall),
            length: tidy(side.length),
            beyond: side.beyond === null ? null : idOf(side.beyond),
            openings: side.openings.map(idOf),
          })),
          ...from,
        });
        break;
      }
      default: {
        const { name, outline, height } = element.shape;
        file.outdoor.push({ ...common, name, outline: ring(outline), height: tidy(height), ...from });
      }
    }
  };
  const bounded = new Map(
    ordered.flatMap((level) => [...boundariesOf(elements.filter((element) => element.levelId === level.id))]),
  );
  const byId = new Map(ordered.map((level) => [level.id, level]));
  for (const element of elements) {
    if (element.kind === 'grid') {
      const { shape } = element;
      file.grids.push(
        shape.kind === 'line'
          ? {
              id: element.id,
              label: shape.label,
              kind: 'line',
              start: pair(shape.start),
              end: pair(shape.end),
              ...source(element),
            }
          : {
              id: element.id,
              label: shape.label,
              kind: 'arc',
              centre: pair(shape.centre),
              radius: tidy(shape.radius),
              startAngle: tidy(shape.startAngle),
              endAngle: tidy(shape.endAngle),
              ...source(element),
            },
      );
      continue;
    }
    add(element, byId.get(element.levelId ?? '') ?? ordered[0], (id) => id);
    // A level that repeats another has its elements too.
    for (const level of ordered)
      if (level.repeats !== null && level.repeats === element.levelId) add(element, level, (id) => `${id}@${level.id}`);
  }
  return file;
}
