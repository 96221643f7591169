import { columnsOf } from '@/server/files';
import { route } from '@/server/http';
import { rebuildDerived } from '@/server/rebuild';

/** The derived columns of a file; made again where an older reader made them. */
export const GET = route<'project' | 'file'>(async (_, { project, file }) => {
  let columns = await columnsOf(project, file);
  if (columns === null) {
    await rebuildDerived(file);
    columns = await columnsOf(project, file);
  }
  return new Response(columns, { headers: { 'content-type': 'application/octet-stream', 'cache-control': 'private, max-age=31536000, immutable', 'x-content-type-options': 'nosniff' } });
});
