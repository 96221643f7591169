import * as v from 'valibot';
import { textUpTo } from '@/core/kinds/limits';
import { markPoint } from '@/server/edits/past';
import { bodyAs, route } from '@/server/http';
import { notFound } from '@/server/problem';
import { expectProject } from '@/server/projects';

const mark = v.strictObject({ mark: v.pipe(textUpTo(120), v.trim()) });

/** Names the project as it was after an edit. */
export const PUT = route<'project' | 'seq'>(async (request, { project, seq }) => {
  await expectProject(project);
  if (!/^\d{1,9}$/.test(seq)) throw notFound('This edit');
  const { mark: name } = await bodyAs(request, mark);
  await markPoint(project, Number(seq), name);
  return {};
});
