import * as v from 'valibot';
import { setHeld } from '@/server/edits/held';
import { bodyAs, route } from '@/server/http';

/** Holds a project as it is, or lets it go. */
export const PUT = route<'project'>('editor', async (request, { project }, who) => {
  const { held } = await bodyAs(request, v.strictObject({ held: v.boolean() }));
  await setHeld(project, held, who?.name ?? null);
});
