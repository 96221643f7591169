import { atDesk } from '@/server/desk/desk';
import { packedAnswer, route } from '@/server/http';

/** A project's rows and its history, of one moment. */
export const GET = route<'project'>('reader', async (request, { project }) =>
  packedAnswer(request, await atDesk({ what: 'state', project })),
);
