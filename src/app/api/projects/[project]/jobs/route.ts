import { jobRequest } from '@/core/jobs';
import { bodyAs, route } from '@/server/http';
import { beginJob, deliveriesOf } from '@/server/work/work';

/** What was handed over, the last first. */
export const GET = route<'project'>(async (_, { project }) => ({ deliveries: await deliveriesOf(project) }));

/** Has something calculated or written in the background. */
export const POST = route<'project'>(async (request, { project }) =>
  beginJob(project, await bodyAs(request, jobRequest)),
);
