import { intakeCsv } from '@/core/handover/intake/intakeCsv';
import { attachment } from '@/server/attachment';
import { route } from '@/server/http';
import { currentIntake } from '@/server/rebuild';

/** The intake report as a table. */
export const GET = route<'project' | 'file'>('reader', async (_, { project, file }) =>
  attachment(intakeCsv(await currentIntake(project, file)), 'intake.csv', 'text/csv'),
);
