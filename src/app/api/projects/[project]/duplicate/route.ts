import { route } from '@/server/http';
import { duplicateProject } from '@/server/projects';

export const POST = route<'project'>(async (_, { project }) => ({ id: await duplicateProject(project) }));
