import * as v from 'valibot';
import { rights } from '@/core/people';
import { bodyAs, route } from '@/server/http';
import { changeMember } from '@/server/people/people';

/** Changes what somebody may do in a project; null takes them out of it. */
export const PUT = route<'project' | 'person'>('owner', async (request, { project, person }) => {
  const { right } = await bodyAs(request, v.strictObject({ right: v.nullable(v.picklist(rights)) }));
  await changeMember(project, person, right);
});
