import { revisionsOf } from '@/server/files';
import { route } from '@/server/http';

/** The revisions of a drawing, the newest first. */
export const GET = route<'project' | 'drawing'>('reader', async (_, { project, drawing }) => ({
  revisions: await revisionsOf(project, drawing),
}));
