import * as v from 'valibot';
import { projectRow } from '@/core/model/state';
import { bodyAs, route } from '@/server/http';
import { startFrom } from '@/server/newProjects';

/** Begins a new project that is set as this one is. */
export const POST = route<'project'>(async (request, { project }) => {
  const { name } = await bodyAs(request, v.strictObject({ name: projectRow.entries.name }));
  return startFrom(project, name);
});
