import { route } from '@/server/http';
import { setDeleted } from '@/server/projects';

export const POST = route<'project'>('owner', async (_, { project }) => setDeleted(project, false));
