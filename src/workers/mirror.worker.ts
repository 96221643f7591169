import { expose, transfer } from 'comlink';
import { bodiesOf, type Bodies } from '@/core/bodies/bodies';
import { seenFaceOn } from '@/core/bodies/faceOn';
import type { ElementRow } from '@/core/kinds/element';
import { writeModel } from '@/core/handover/model/writeModel';
import type { ModelFile } from '@/core/handover/model/schema';
import type { LibraryRow } from '@/core/model/library';
import type { LevelRow, ProjectRow } from '@/core/model/state';
import type { Finding } from '@/core/proof/finding';
import { prove } from '@/core/proof/prove';
import { resolveBuilding } from '@/core/resolved/resolve';
import type { UprightPlane } from '@/core/tracing/upright/plane';

/** The tables that a copy of the model has. */
type Mirrored = { level: LevelRow; element: ElementRow; library: LibraryRow; project: ProjectRow };

/** A row that came, changed or, with null, went. */
export type MirrorChange = {
  [T in keyof Mirrored]: { table: T; id: string; row: Mirrored[T] | null };
}[keyof Mirrored];

const levels = new Map<string, LevelRow>();
const elements = new Map<string, ElementRow>();
const library = new Map<string, LibraryRow>();
const project = new Map<string, ProjectRow>();

/** Keeps a copy of what the building is made of, and works on the whole building off the main thread. */
const api = {
  /** Brings the copy up to date. */
  follow(changes: readonly MirrorChange[]): void {
    for (const change of changes) {
      if (change.table === 'level') keep(levels, change.id, change.row);
      else if (change.table === 'element') keep(elements, change.id, change.row);
      else if (change.table === 'library') keep(library, change.id, change.row);
      else keep(project, change.id, change.row);
    }
  },

  /** The model in space. */
  bodies(): Bodies {
    const bodies = bodiesOf(building());
    const buffers = bodies.parts.flatMap(({ triangles, edges, axes, triangleEnds, edgeEnds, axisEnds }) =>
      [triangles, edges, axes, triangleEnds, edgeEnds, axisEnds].map(({ buffer }) => buffer),
    );
    return transfer(bodies, buffers as ArrayBuffer[]);
  },

  /** What the rules that need no drawing find in the model. */
  findings: (): Finding[] => prove(written()),

  /** The model as model.json has it. */
  text: (): string => JSON.stringify(written()),

  /** What of the model is seen in the plane of a section, as shapes in that plane. */
  faceOn: (plane: UprightPlane): ElementRow[] => seenFaceOn(building(), plane),
};

const building = () =>
  resolveBuilding({ levels: [...levels.values()], elements: [...elements.values()], unbounded: true });

const written = (): ModelFile =>
  writeModel({
    building: building(),
    library: [...library.values()],
    structure: [...project.values()][0]?.structure ?? null,
    drawingName: (id) => id,
  });

function keep<T>(rows: Map<string, T>, id: string, row: T | null): void {
  if (row === null) rows.delete(id);
  else rows.set(id, row);
}

export type MirrorWorker = typeof api;
expose(api);
