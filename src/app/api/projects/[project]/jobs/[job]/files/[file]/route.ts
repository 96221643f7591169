import { attachment } from '@/server/attachment';
import { route } from '@/server/http';
import { jobFile } from '@/server/work/work';

export const GET = route<'project' | 'job' | 'file'>('reader', async (_, { project, job, file }) => {
  const { bytes, name, type } = await jobFile(project, job, file);
  return attachment(bytes, name, type);
});
