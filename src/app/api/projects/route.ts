import * as v from 'valibot';
import { projectRow } from '@/core/model/state';
import { bodyAs, route } from '@/server/http';
import { createProject } from '@/server/newProjects';
import { listProjects } from '@/server/projects';

export const GET = route(async () => ({ projects: await listProjects() }));

export const POST = route(async (request) => {
  const { name } = await bodyAs(request, v.strictObject({ name: projectRow.entries.name }));
  return { id: await createProject(name) };
});
