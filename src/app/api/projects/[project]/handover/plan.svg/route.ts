import { attachment } from '@/server/attachment';
import { planSvg } from '@/server/handover';
import { route } from '@/server/http';

/** `?level=` names the level, `paper` and `scale` the sheet where the usual one is not wanted. */
export const GET = route<'project'>(async (request, { project }) => {
  const asked = new URL(request.url).searchParams;
  const scale = asked.get('scale');
  const { name, content } = await planSvg(project, asked.get('level') ?? '', {
    paper: asked.get('paper'),
    scale: scale === null ? null : Number(scale),
  });
  return attachment(content, name, 'image/svg+xml');
});
