import { sql } from 'kysely';
import { groupBy } from '@/core/groupBy';
import type { ElementRow } from '@/core/kinds/element';
import { outlinesOf } from '@/core/kinds/kinds';
import { database } from './database/connection';

/** More elements than this make no better picture. */
const mostElements = 500;

/** The outlines of walls and columns of one level of each project, the one that has most of them. */
async function modelPictures(projects: string[]): Promise<Map<string, number[]>> {
  const { rows } = await sql<Pick<ElementRow, 'kind' | 'shape'> & { project_id: string }>`
    with counted as (
      select project_id, level_id, count(*) as n,
        row_number() over (partition by project_id order by count(*) desc) as place
      from elements where kind in ('wall', 'column') and project_id = any(${projects}::uuid[]) group by 1, 2
    ), chosen as (
      select e.project_id, e.kind, e.shape, row_number() over (partition by e.project_id order by e.kind, e.id) as nth
      from elements e join counted c
        on c.project_id = e.project_id and c.level_id is not distinct from e.level_id and c.place = 1
      where e.kind in ('wall', 'column')
    )
    select project_id, kind, shape from chosen where nth <= ${mostElements}
  `.execute(database());
  const byProject = groupBy(rows, ({ project_id: project }) => project);
  return new Map([...byProject].map(([project, own]) => [project, own.flatMap(outlineLines)]));
}

/** Centimetres are fine enough for a picture of a few hundred pixels. */
const centimetres = (metres: number): number => Math.round(metres * 100);

const outlineLines = (element: Pick<ElementRow, 'kind' | 'shape'>): number[] =>
  outlinesOf(element).flatMap((outline) =>
    outline.flatMap((p, i) => [...p, ...outline[(i + 1) % outline.length]].map(centimetres)),
  );

/** The picture of the first drawing that is shown in each project. */
async function drawingPictures(projects: string[]): Promise<Map<string, number[]>> {
  const rows = await database()
    .selectFrom('drawings')
    .innerJoin('revisions', (join) =>
      join.onRef('revisions.drawing_id', '=', 'drawings.id').onRef('revisions.number', '=', 'drawings.revision'),
    )
    .innerJoin('file_reports', 'file_reports.file_id', 'revisions.file_id')
    .select(['project_id', 'picture'])
    .distinctOn('project_id')
    .where('project_id', 'in', projects)
    .where('discarded', '=', false)
    .where('set_aside', '=', false)
    .orderBy('project_id')
    .orderBy('drawings.name')
    .execute();
  return new Map(rows.map(({ project_id: project, picture }) => [project, picture ?? []]));
}

/** A small picture of each project. */
export async function picturesOf(projects: string[]): Promise<Map<string, number[]>> {
  if (projects.length === 0) return new Map();
  return new Map([...(await drawingPictures(projects)), ...(await modelPictures(projects))]);
}
