import { archiveOf } from '@/server/archive';
import { attachment } from '@/server/attachment';
import { route } from '@/server/http';

export const GET = route<'project'>('reader', async (_, { project }) => {
  const { name, content, size } = await archiveOf(project);
  return attachment(content, name, 'application/gzip', size);
});
