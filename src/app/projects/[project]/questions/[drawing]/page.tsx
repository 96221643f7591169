import * as v from 'valibot';
import { uuid } from '@/core/kinds/limits';
import { Gone } from '../../Gone';
import { QuestionSheet } from './QuestionSheet';

export const dynamic = 'force-dynamic';

/** What there is to ask the author of a drawing, on paper. */
export default async function Page({ params }: { params: Promise<{ project: string; drawing: string }> }) {
  const { project, drawing } = await params;
  if (!v.is(uuid, project) || !v.is(uuid, drawing)) return <Gone message="There is no drawing at this address." />;
  return <QuestionSheet key={drawing} projectId={project} drawingId={drawing} />;
}
