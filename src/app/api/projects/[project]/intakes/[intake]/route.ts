import { route } from '@/server/http';
import { cancelIntake } from '@/server/intakes';

export const DELETE = route<'project' | 'intake'>(async (_, { project, intake }) => cancelIntake(project, intake));
