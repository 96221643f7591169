import { attachment } from '@/server/attachment';
import { originalBytes } from '@/server/converter/origin';
import { route } from '@/server/http';

/** A file as it came, before a converter made a DXF of it. */
export const GET = route<'project' | 'file'>('reader', async (_, { project, file }) => {
  const { origin, content } = await originalBytes(project, file);
  return attachment(content, origin.name, 'application/octet-stream', origin.size);
});
