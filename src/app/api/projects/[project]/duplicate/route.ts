import { route } from '@/server/http';
import { giveOwner } from '@/server/people/rights';
import { duplicateProject } from '@/server/newProjects';

export const POST = route<'project'>('reader', async (_, { project }, who) => {
  const id = await duplicateProject(project);
  await giveOwner(id, who?.id ?? null);
  return { id };
});
