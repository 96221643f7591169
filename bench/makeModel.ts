import type { Point } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import { put, type Change } from '@/core/model/edits';
import { plainLevel } from '@/core/model/levels';
import { Model } from '@/core/model/model';

/** Ids that look like those of a database. */
export const uuid = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

const bay = 6;
const drawing = uuid(1);

/** Levels of the model, from the lowest up. */
export const levelIds = [0, 1, 2, 3, 4].map((i) => uuid(10 + i));

interface Row {
  kind: ElementRow['kind'];
  shape: ElementRow['shape'];
}

/** A bay of a frame building: a column, two beams, two walls with an opening each, a slab and a room. */
function bayRows([x, y]: Point, wallId: (n: number) => string): Row[] {
  const section = { shape: 'rectangle', width: 0.3, depth: 0.5 } as const;
  const ring: Point[] = [
    [x + 0.1, y + 0.1],
    [x + bay - 0.1, y + 0.1],
    [x + bay - 0.1, y + bay - 0.1],
    [x + 0.1, y + bay - 0.1],
  ];
  const wall = (end: Point) => ({ start: [x, y] as Point, end, thickness: 0.2, height: null, bulge: 0, outer: false });
  const opening = (n: number) =>
    ({ wall: wallId(n), use: 'door', offset: 2, width: 0.9, height: 2.1, sill: 0 }) as const;
  return [
    { kind: 'wall', shape: wall([x + bay, y]) },
    { kind: 'wall', shape: wall([x, y + bay]) },
    { kind: 'opening', shape: opening(0) },
    { kind: 'opening', shape: opening(1) },
    { kind: 'column', shape: { position: [x, y], rotation: 0, section, mark: 'C' } },
    { kind: 'beam', shape: { start: [x, y], end: [x + bay, y], section, mark: 'B' } },
    { kind: 'beam', shape: { start: [x, y], end: [x, y + bay], section, mark: 'B' } },
    { kind: 'slab', shape: { outline: ring, holes: [], thickness: 0.2 } },
    { kind: 'zone', shape: { name: 'Room', number: '1', outline: ring, holes: [], height: null } },
  ];
}

/** A model of about this many elements on five levels, each made of a candidate of one drawing. */
export function makeModel(elements: number): { model: Model; changes: Change[] } {
  const perLevel = Math.ceil(elements / levelIds.length / 9);
  const wide = Math.ceil(Math.sqrt(perLevel));
  const changes: Change[] = levelIds.map((id, i) =>
    put('level', { ...plainLevel, id, name: `Level ${i}`, elevation: i * 3.5, height: 3.5 }),
  );
  let next = 1000;
  for (const levelId of levelIds)
    for (let i = 0; i < perLevel; i += 1) {
      const first = next;
      const rows = bayRows([(i % wide) * bay, Math.floor(i / wide) * bay], (n) => uuid(first + n));
      for (const row of rows) {
        const id = uuid(next);
        const key = `${row.kind}:${next}`;
        const element = { id, levelId, source: { drawing, handles: [key] }, libraryId: null, ...row } as ElementRow;
        changes.push(put('element', element));
        const decision = { id: `${drawing}/${key}`, drawingId: drawing, key, elementId: id, seen: [0] };
        changes.push(put('decision', { ...decision, verdict: 'accepted' }));
        next += 1;
      }
    }
  const model = new Model();
  model.apply(changes);
  return { model, changes };
}

/** The drawing that everything of the model was read from. */
export const drawingRow = {
  id: drawing,
  name: 'plan',
  fileId: uuid(2),
  fileName: 'plan.dxf',
  revision: 1,
  levelId: levelIds[0],
  alsoOn: [],
  discarded: false,
  setAside: false,
};
