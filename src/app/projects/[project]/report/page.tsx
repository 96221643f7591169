import * as v from 'valibot';
import { uuid } from '@/core/kinds/limits';
import { Gone } from '../Gone';
import { Report } from './Report';

export const dynamic = 'force-dynamic';

/** What Proof found of a project, on paper. */
export default async function Page({ params }: { params: Promise<{ project: string }> }) {
  const { project } = await params;
  if (!v.is(uuid, project)) return <Gone message="There is no project at this address." />;
  return <Report key={project} id={project} />;
}
