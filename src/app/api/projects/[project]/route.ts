import { route } from '@/server/http';
import { purgeProject, setDeleted } from '@/server/projects';

/** Deletes with a way back; `?forever` removes what was deleted before. */
export const DELETE = route<'project'>('owner', async (request, { project }) => {
  if (new URL(request.url).searchParams.has('forever')) await purgeProject(project);
  else await setDeleted(project, true);
});
