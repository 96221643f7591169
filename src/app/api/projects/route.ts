import * as v from 'valibot';
import { projectRow } from '@/core/model/state';
import { bodyAs, route } from '@/server/http';
import { createProject } from '@/server/newProjects';
import { giveOwner } from '@/server/people/rights';
import { listProjects } from '@/server/projects';

export const GET = route('person', async (_, __, who) => ({ projects: await listProjects(who) }));

export const POST = route('person', async (request, _, who) => {
  const { name } = await bodyAs(request, v.strictObject({ name: projectRow.entries.name }));
  const id = await createProject(name);
  await giveOwner(id, who?.id ?? null);
  return { id };
});
