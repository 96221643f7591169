import { originOf } from '@/server/converter/origin';
import { route } from '@/server/http';

/** What a file was before a converter made a DXF of it; null where it came as one. */
export const GET = route<'project' | 'file'>('reader', async (_, { project, file }) => ({
  origin: await originOf(project, file),
}));
