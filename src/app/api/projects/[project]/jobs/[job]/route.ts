import { route } from '@/server/http';
import { endJob, jobOf } from '@/server/work/work';

export const GET = route<'project' | 'job'>('reader', async (_, { project, job }) => jobOf(project, job));

export const DELETE = route<'project' | 'job'>('editor', async (_, { project, job }) => endJob(project, job));
