import { attachment } from '@/server/attachment';
import { modelGbxml } from '@/server/handover';
import { route } from '@/server/http';

export const GET = route<'project'>('reader', async (_, { project }) => {
  const { name, content } = await modelGbxml(project);
  return attachment(content, name, 'application/xml');
});
