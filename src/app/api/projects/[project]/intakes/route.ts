import * as v from 'valibot';
import { route } from '@/server/http';
import { receive, views } from '@/server/intakes/intakes';
import { nameOfUpload } from '@/server/nameOfUpload';
import { Problem } from '@/server/problem';
import { expectProject } from '@/server/projects';
import { settings } from '@/server/settings';

export const GET = route<'project'>('reader', async (_, { project }) => {
  await expectProject(project);
  return { intakes: await views(project), converts: settings.converter !== null };
});

const query = v.object({
  level: v.optional(v.pipe(v.string(), v.uuid())),
  revises: v.optional(v.pipe(v.string(), v.uuid())),
});

/** Takes a file in: the request's body is its bytes. */
export const POST = route<'project'>('editor', async (request, { project }, who) => {
  const asked = v.safeParse(query, Object.fromEntries(new URL(request.url).searchParams));
  if (!asked.success) throw new Problem(400, 'level and revises are ids of a level and of a drawing of the project.');
  const fileName = nameOfUpload(request);
  const length = request.headers.get('content-length');
  const body = (request.body ??
    new ReadableStream({ start: (c) => c.close() })) as unknown as AsyncIterable<Uint8Array>;
  const { level = null, revises = null } = asked.output;
  return receive(
    project,
    { levelId: level, revises, fileName, person: who?.id ?? null },
    length === null ? null : Number(length),
    body,
  );
});
