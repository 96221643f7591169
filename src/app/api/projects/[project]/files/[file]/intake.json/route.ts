import { attachment } from '@/server/attachment';
import { route } from '@/server/http';
import { currentIntake } from '@/server/rebuild';

/** The intake report, for the bench and, with `?download`, as a file. */
export const GET = route<'project' | 'file'>('reader', async (request, { project, file }) => {
  const intake = await currentIntake(project, file);
  return new URL(request.url).searchParams.has('download')
    ? attachment(JSON.stringify(intake, null, 1), 'intake.json', 'application/json')
    : intake;
});
