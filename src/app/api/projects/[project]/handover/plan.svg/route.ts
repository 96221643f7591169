import { attachment } from '@/server/attachment';
import { sheetOf } from '@/server/handover';
import { askedSheet } from '@/server/askedSheet';
import { route } from '@/server/http';

/** `?level=` or `?sheet=` names what is wanted; `paper`, `scale` and `layers` how, where that is not as usual. */
export const GET = route<'project'>('reader', async (request, { project }) => {
  const { searchParams } = new URL(request.url);
  const of = { level: searchParams.get('level'), sheet: searchParams.get('sheet') };
  const { name, content } = await sheetOf(project, of, askedSheet(searchParams));
  return attachment(content, name, 'image/svg+xml');
});
