import { route } from '@/server/http';
import { cancelIntake, retryIntake } from '@/server/intakes/intakes';

export const DELETE = route<'project' | 'intake'>('editor', async (_, { project, intake }) =>
  cancelIntake(project, intake),
);

/** Tries one that failed once more. */
export const POST = route<'project' | 'intake'>('editor', async (_, { project, intake }) =>
  retryIntake(project, intake),
);
