import * as v from 'valibot';
import { atDesk } from '@/server/desk/desk';
import { bytesOf, packedAnswer, route } from '@/server/http';
import { Problem } from '@/server/problem';

/** An edit of 20,000 elements has about 30 MB. */
const largestEdit = 64 * 1024 * 1024;

const version = v.pipe(v.string(), v.regex(/^\d{1,15}$/), v.transform(Number));

/** The edits after a version, and how far the project is. */
export const GET = route<'project'>('reader', async (request, { project }) => {
  const since = v.safeParse(version, new URL(request.url).searchParams.get('since') ?? '0');
  if (!since.success) throw new Problem(400, 'since is the number of a version: a whole number, zero or more.');
  return packedAnswer(request, await atDesk({ what: 'since', project, version: since.output }));
});

export const POST = route<'project'>('editor', async (request, { project }, who) => {
  const body = await bytesOf(request, largestEdit);
  return packedAnswer(request, await atDesk({ what: 'edit', project, by: who?.name ?? null, body }));
});
