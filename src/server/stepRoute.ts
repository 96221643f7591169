import { atDesk } from './desk/desk';
import type { Way } from './edits/history';
import { bytesOf, packedAnswer, route } from './http';

const largestStep = 4096;

/** The route of undo or of redo. */
export const stepRoute = (way: Way) =>
  route<'project'>('editor', async (request, { project }, who) => {
    const body = await bytesOf(request, largestStep);
    return packedAnswer(request, await atDesk({ what: 'step', project, way, body, by: who?.name ?? null }));
  });
