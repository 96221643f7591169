import * as v from 'valibot';
import { projectRow } from '@/core/model/state';
import { bodyAs, route } from '@/server/http';
import { startFrom } from '@/server/newProjects';
import { giveOwner } from '@/server/people/rights';

/** Begins a new project that is set as this one is. */
export const POST = route<'project'>('reader', async (request, { project }, who) => {
  const { name } = await bodyAs(request, v.strictObject({ name: projectRow.entries.name }));
  const started = await startFrom(project, name);
  await giveOwner(started.id, who?.id ?? null);
  return started;
});
