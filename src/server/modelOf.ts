import type { ElementRow } from '@/core/kinds/element';
import { readModel, type ReadModel } from '@/core/handover/model/readModel';
import { writeModel } from '@/core/handover/model/writeModel';
import { resolveBuilding } from '@/core/resolved/resolve';
import { Model } from '@/core/model/model';
import type { ProjectState } from '@/core/model/state';
import { database } from './database/connection';
import { notFound, Problem } from './problem';
import { loadState } from './rows/rows';

/** Elements by kind, then by what they are called. */
export const ordered = (elements: ElementRow[]) =>
  elements.sort(
    (a, b) =>
      a.kind.localeCompare(b.kind) ||
      labelOf(a).localeCompare(labelOf(b), 'en', { numeric: true }) ||
      a.id.localeCompare(b.id),
  );
const labelOf = ({ kind, shape }: ElementRow) => {
  if (kind === 'grid') return shape.label;
  if (kind === 'column' || kind === 'beam') return shape.mark;
  if (kind === 'zone') return shape.number;
  return '';
};

/** A project as it is at one moment, and which of its versions that is. */
export async function load(project: string) {
  const { rows, version } = await database()
    .transaction()
    .setIsolationLevel('repeatable read')
    .execute(async (tx) => {
      const row = await tx.selectFrom('projects').select('version').where('id', '=', project).executeTakeFirst();
      return { version: row?.version ?? 0, rows: await loadState(tx, project) };
    });
  const state = new Model(rows);
  const name = state.project[project]?.name;
  if (name === undefined) throw notFound('This project');
  return { state, name, version, elements: ordered(Object.values(state.element)) };
}

/** model.json of a project: its text, and what goes with it. */
interface ModelFileOf {
  name: string;
  content: string;
  version: number;
  /** How its drawings lie, by their ids. */
  placements: ProjectState['placement'];
  /** The drawings that are not put away, with the names of their levels. */
  drawings: { name: string; revision: number; level: string; fileId: string }[];
}

/** model.json of a project, and the version that it is of. */
export async function modelFile(project: string): Promise<ModelFileOf> {
  const { state, name, version, elements } = await load(project);
  const model = writeModel({
    building: resolveBuilding({ levels: Object.values(state.level), elements }),
    library: Object.values(state.library),
    survey: state.project[project].survey,
    structure: state.project[project].structure,
    site: state.project[project].site,
    drawingName: (id) => state.drawing[id]?.fileName ?? id,
  });
  const drawings = Object.values(state.drawing)
    .filter(({ discarded }) => !discarded)
    .map((one) => ({ ...one, level: state.level[one.levelId ?? '']?.name ?? '' }))
    .sort((a, b) => a.name.localeCompare(b.name));
  return { name, content: `${JSON.stringify(model, null, 1)}\n`, version, placements: state.placement, drawings };
}

/** A project's model as its receivers' programs get it. */
export async function readModelOf(project: string): Promise<Omit<ModelFileOf, 'content'> & { model: ReadModel }> {
  const { content, ...rest } = await modelFile(project);
  const read = readModel(content);
  if (!read.ok) throw new Problem(409, read.message);
  return { ...rest, model: read.value };
}
