import { attachment } from '@/server/attachment';
import { modelFile } from '@/server/handover';
import { route } from '@/server/http';

export const GET = route<'project'>(async (_, { project }) => {
  const { name, content } = await modelFile(project);
  return attachment(content, name, 'application/json');
});
