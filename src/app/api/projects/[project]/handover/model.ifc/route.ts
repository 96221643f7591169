import { attachment } from '@/server/attachment';
import { modelIfc } from '@/server/handover';
import { route } from '@/server/http';

export const GET = route<'project'>('reader', async (_, { project }) => {
  const { name, content } = await modelIfc(project);
  return attachment(content, name, 'application/x-step');
});
