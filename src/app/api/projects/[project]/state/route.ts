import { route } from '@/server/http';
import { snapshot } from '@/server/snapshot';

export const GET = route<'project'>(async (_, { project }) => snapshot(project));
