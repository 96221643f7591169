import * as v from 'valibot';
import { editSchema } from '@/core/model/edits';
import { applyEdit, editsSince } from '@/server/edits';
import { bodyAs, route } from '@/server/http';

const request = v.strictObject({
  seen: v.pipe(v.number(), v.integer(), v.minValue(0)),
  clientId: v.pipe(v.string(), v.uuid()),
  edit: editSchema,
});

/** The edits after a version, and how far the project is. */
export const GET = route<'project'>(async ({ url }, { project }) => {
  const since = Number(new URL(url).searchParams.get('since') ?? 0);
  return editsSince(project, Number.isFinite(since) ? since : 0);
});

export const POST = route<'project'>(async (incoming, { project }) => {
  const { seen, clientId, edit } = await bodyAs(incoming, request);
  await applyEdit(project, seen, edit, clientId);
  return editsSince(project, seen, clientId);
});
