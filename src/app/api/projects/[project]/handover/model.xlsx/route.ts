import { attachment } from '@/server/attachment';
import { modelWorkbook } from '@/server/handover';
import { route } from '@/server/http';

export const GET = route<'project'>('reader', async (_, { project }) => {
  const { name, content } = await modelWorkbook(project);
  return attachment(content, name, 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet');
});
