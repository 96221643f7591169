import { attachment } from '@/server/attachment';
import { elementsDxf } from '@/server/handover';
import { route } from '@/server/http';

/** `?drawing=` names the drawing whose unit and origin are taken. */
export const GET = route<'project'>('reader', async (request, { project }) => {
  const { name, content } = await elementsDxf(project, new URL(request.url).searchParams.get('drawing') ?? '');
  return attachment(content, name, 'image/vnd.dxf');
});
