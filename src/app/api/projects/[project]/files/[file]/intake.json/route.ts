import { intakeOf } from '@/server/files';
import { attachment } from '@/server/attachment';
import { route } from '@/server/http';

/** The intake report, for the bench and, with `?download`, as a file. */
export const GET = route<'project' | 'file'>(async (request, { project, file }) => {
  const intake = await intakeOf(project, file);
  return new URL(request.url).searchParams.has('download') ? attachment(JSON.stringify(intake, null, 1), 'intake.json', 'application/json') : intake;
});
