import type { Survey } from '@/core/datum/survey';
import { degrees } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/model/elements';
import { structuralTop } from '@/core/model/levels';
import type { LevelRow } from '@/core/model/state';
import type { ModelFile } from './schema';

/** What is handed over: levels and elements, the name of each drawing that is a source, and where the survey has the project. */
export interface HandoverInput { survey?: Survey | null; levels: readonly LevelRow[]; elements: readonly ElementRow[]; drawingName: (id: string) => string }

/** Lengths to a tenth of a micrometre and angles to a billionth of a degree: the noise of the last digits goes, the number stays. */
const tidy = (value: number) => Number(value.toFixed(9)) + 0;

/** The model as model.json, version 1: metres, degrees, the project's coordinates. */
export function writeModel({ levels, elements, drawingName, survey }: HandoverInput): ModelFile {
  const source = (element: ElementRow) => (element.source ? { source: { drawing: drawingName(element.source.drawing), handles: element.source.handles } } : {});
  const pair = ([x, y]: readonly [number, number]): [number, number] => [tidy(x), tidy(y)];
  const ordered = [...levels].sort((a, b) => a.elevation - b.elevation);
  const file: ModelFile = {
    format: 'zircon-frame-model', version: 1, unit: 'm',
    levels: ordered.map((level) => ({
      id: level.id, name: level.name, elevation: tidy(level.elevation), height: tidy(level.height), kind: level.kind, structuralTop: tidy(structuralTop(level)), slabThickness: tidy(level.slab), ...(level.repeats === null ? {} : { repeats: level.repeats }),
    })),
    ...(survey ? { survey: { easting: tidy(survey.easting), northing: tidy(survey.northing), elevation: tidy(survey.elevation), north: tidy(degrees(survey.north)) } } : {}),
    grids: [], columns: [], beams: [], walls: [], openings: [], slabs: [], zones: [], outdoor: [],
  };
  for (const element of elements) {
    if (element.kind === 'grid') {
      const { shape } = element;
      file.grids.push(shape.kind === 'line'
        ? { id: element.id, label: shape.label, kind: 'line', start: pair(shape.start), end: pair(shape.end), ...source(element) }
        : { id: element.id, label: shape.label, kind: 'arc', centre: pair(shape.centre), radius: tidy(shape.radius), startAngle: tidy(shape.startAngle), endAngle: tidy(shape.endAngle), ...source(element) });
    } else {
      const { position, rotation, section, mark } = element.shape;
      const written = section.shape === 'polygon' ? { shape: section.shape, outline: section.outline.map(pair) } : section.shape === 'circle' ? { shape: section.shape, diameter: tidy(section.diameter) } : { shape: section.shape, width: tidy(section.width), depth: tidy(section.depth) };
      const column = { level: element.levelId ?? ordered[0]?.id ?? '', position: pair(position), rotation: tidy(rotation), section: written, mark, ...source(element) };
      file.columns.push({ id: element.id, ...column });
      // A level that repeats another has its elements too.
      for (const level of ordered) if (level.repeats !== null && level.repeats === element.levelId) file.columns.push({ ...column, id: `${element.id}@${level.id}`, level: level.id });
    }
  }
  return file;
}
