import { attachment } from '@/server/attachment';
import { scheduleCsv } from '@/server/handover';
import { route } from '@/server/http';

/** `?of=` names the schedule. */
export const GET = route<'project'>('reader', async (request, { project }) => {
  const { name, content } = await scheduleCsv(project, new URL(request.url).searchParams.get('of') ?? '');
  return attachment(content, name, 'text/csv');
});
