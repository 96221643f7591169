import type { ElementRow } from '@/core/model/elements';
import type { LevelRow } from '@/core/model/state';
import type { ModelFile } from './schema';

/** What is handed over: levels and elements, and the name of each drawing that is a source. */
export interface HandoverInput { levels: readonly LevelRow[]; elements: readonly ElementRow[]; drawingName: (id: string) => string }

/** Lengths to a tenth of a micrometre and angles to a billionth of a degree: the noise of the last digits goes, the number stays. */
const tidy = (value: number) => Number(value.toFixed(9)) + 0;

/** The model as model.json, version 1: metres, degrees, the project's coordinates. */
export function writeModel({ levels, elements, drawingName }: HandoverInput): ModelFile {
  const source = (element: ElementRow) => (element.source ? { source: { drawing: drawingName(element.source.drawing), handles: element.source.handles } } : {});
  const pair = ([x, y]: readonly [number, number]): [number, number] => [tidy(x), tidy(y)];
  const ordered = [...levels].sort((a, b) => a.elevation - b.elevation);
  const file: ModelFile = {
    format: 'zircon-frame-model', version: 1, unit: 'm',
    levels: ordered.map(({ id, name, elevation, height }) => ({ id, name, elevation: tidy(elevation), height: tidy(height) })),
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
      file.columns.push({ id: element.id, level: element.levelId ?? ordered[0]?.id ?? '', position: pair(position), rotation: tidy(rotation), section: written, mark, ...source(element) });
    }
  }
  return file;
}
