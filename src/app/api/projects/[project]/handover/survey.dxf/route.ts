import { attachment } from '@/server/attachment';
import { surveyDxf } from '@/server/handover';
import { route } from '@/server/http';

/** `?level=` names the level whose elements are written at survey coordinates. */
export const GET = route<'project'>('reader', async (request, { project }) => {
  const { name, content } = await surveyDxf(project, new URL(request.url).searchParams.get('level') ?? '');
  return attachment(content, name, 'image/vnd.dxf');
});
