import { attachment } from '@/server/attachment';
import { modelFile } from '@/server/modelOf';
import { route } from '@/server/http';

export const GET = route<'project'>('reader', async (_, { project }) => {
  const { name, content } = await modelFile(project);
  return attachment(content, `${name} model.json`, 'application/json');
});
