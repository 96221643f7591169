import { attachment } from '@/server/attachment';
import { route } from '@/server/http';
import { zipOf } from '@/server/work/work';

/** Everything that came of a job, in one file. */
export const GET = route<'project' | 'job'>('reader', async (_, { project, job }) => {
  const { name, content } = await zipOf(project, job);
  return attachment(content, name, 'application/zip');
});
