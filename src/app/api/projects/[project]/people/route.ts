import * as v from 'valibot';
import { rights } from '@/core/people';
import { bodyAs, route } from '@/server/http';
import { invite, listMembers } from '@/server/people/people';
import { giveOwner, rightOf } from '@/server/people/rights';
import { expectPerson } from '@/server/people/sessions';

/** Who takes part in a project, and what who asks may do in it. */
export const GET = route<'project'>('reader', async (_, { project }, who) => ({
  members: await listMembers(project),
  self: who === null ? null : { id: who.id, right: await rightOf(who, project) },
}));

/** Makes a link by which somebody takes part. */
export const POST = route<'project'>('owner', async (request, { project }, who) => {
  // A project without an owner of its own gets one who keeps it when others come.
  await giveOwner(project, expectPerson(who).id);
  const { right } = await bodyAs(request, v.strictObject({ right: v.picklist(rights) }));
  return { path: `/join/${await invite({ to: 'project', project, right })}` };
});
