import { attachment } from '@/server/attachment';
import { plansPdf } from '@/server/handover';
import { route } from '@/server/http';

/** `paper` and `scale` name the sheet where the usual one is not wanted. */
export const GET = route<'project'>(async (request, { project }) => {
  const asked = new URL(request.url).searchParams;
  const scale = asked.get('scale');
  const { name, content } = await plansPdf(project, {
    paper: asked.get('paper'),
    scale: scale === null ? null : Number(scale),
  });
  return attachment(content, name, 'application/pdf');
});
