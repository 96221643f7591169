import { attachment } from '@/server/attachment';
import { plansPdf } from '@/server/handover';
import { askedSheet } from '@/server/askedSheet';
import { route } from '@/server/http';

/** `paper`, `scale` and `layers` say how, where that is not as usual. */
export const GET = route<'project'>('reader', async (request, { project }) => {
  const { name, content } = await plansPdf(project, askedSheet(new URL(request.url).searchParams));
  return attachment(content, name, 'application/pdf');
});
