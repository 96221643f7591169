import { intakeCsv } from '@/core/handover/intake/intakeCsv';
import { attachment } from '@/server/attachment';
import { intakeOf } from '@/server/files';
import { route } from '@/server/http';

/** The intake report as a table. */
export const GET = route<'project' | 'file'>(async (_, { project, file }) => attachment(intakeCsv(await intakeOf(project, file)), 'intake.csv', 'text/csv'));
