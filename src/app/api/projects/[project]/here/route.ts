import { hereSchema } from '@/core/here';
import { tellHere } from '@/server/here';
import { bodyAs, route } from '@/server/http';

/** Tells the other windows of the project where this one is. */
export const POST = route<'project'>('reader', async (request, { project }, who) => {
  await tellHere(project, { ...(await bodyAs(request, hereSchema)), name: who?.name ?? null });
});
