import * as v from 'valibot';
import { atDesk } from '@/server/desk/desk';
import { textUpTo } from '@/core/kinds/limits';
import { markPoint, pastOf } from '@/server/edits/past';
import { bodyAs, bytesOf, packedAnswer, route } from '@/server/http';
import { Problem } from '@/server/problem';
import { expectProject } from '@/server/projects';

const place = v.nullable(v.pipe(v.string(), v.regex(/^\d{1,9}$/), v.transform(Number)));

/** The edits of a project, the newest first. */
export const GET = route<'project'>('reader', async (request, { project }) => {
  await expectProject(project);
  const before = v.safeParse(place, new URL(request.url).searchParams.get('before'));
  if (!before.success) throw new Problem(400, 'before is the number of an edit: a whole number, zero or more.');
  return { edits: await pastOf(project, before.output) };
});

const marked = v.strictObject({
  seq: v.pipe(v.number(), v.integer(), v.minValue(0)),
  mark: v.pipe(textUpTo(120), v.trim()),
});

/** Names the project as it was after an edit; an empty name takes the mark away. */
export const PUT = route<'project'>('editor', async (request, { project }) => {
  await expectProject(project);
  const { seq, mark } = await bodyAs(request, marked);
  await markPoint(project, seq, mark);
  return {};
});

/** A request names two numbers and two ids. */
const largestRequest = 4096;

/** Puts the project as it was after an edit. */
export const POST = route<'project'>('editor', async (request, { project }, who) => {
  const body = await bytesOf(request, largestRequest);
  return packedAnswer(request, await atDesk({ what: 'back', project, by: who?.name ?? null, body }));
});
