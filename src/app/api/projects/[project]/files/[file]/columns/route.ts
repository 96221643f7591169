import { route } from '@/server/http';
import { currentColumns } from '@/server/rebuild';

/** The derived columns of a file; made again where an older reader made them. */
export const GET = route<'project' | 'file'>(
  'reader',
  async (_, { project, file }) =>
    new Response(await currentColumns(project, file), {
      headers: {
        'content-type': 'application/octet-stream',
        'cache-control': 'private, max-age=31536000, immutable',
        'x-content-type-options': 'nosniff',
      },
    }),
);
