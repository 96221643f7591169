import { jobRequest } from '@/core/jobs';
import { bodyAs, route } from '@/server/http';
import { expectRight } from '@/server/people/rights';
import { beginJob, deliveriesOf } from '@/server/work/work';

/** What was handed over, the last first. */
export const GET = route<'project'>('reader', async (_, { project }) => ({ deliveries: await deliveriesOf(project) }));

/** Has something calculated or written in the background. */
export const POST = route<'project'>('reader', async (request, { project }, who) => {
  const asked = await bodyAs(request, jobRequest);
  // Trials are looked at by readers too; a delivery is something that is made.
  if (who !== null && asked.kind === 'delivery') await expectRight(who, project, 'editor');
  return beginJob(project, asked, who?.id ?? null);
});
