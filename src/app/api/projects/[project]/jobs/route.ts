import { jobRequest } from '@/core/jobs';
import { bodyAs, route } from '@/server/http';
import { beginJob } from '@/server/work/work';

/** Has something calculated or written in the background. */
export const POST = route<'project'>(async (request, { project }) =>
  beginJob(project, await bodyAs(request, jobRequest)),
);
