import { route } from '@/server/http';
import { duplicateProject } from '@/server/newProjects';

export const POST = route<'project'>(async (_, { project }) => ({ id: await duplicateProject(project) }));
