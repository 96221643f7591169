import { revisionsOf } from '@/server/files';
import { route } from '@/server/http';

/** The revisions of a drawing, the newest first. */
export const GET = route<'project' | 'drawing'>(async (_, { project, drawing }) => ({
  revisions: await revisionsOf(project, drawing),
}));
