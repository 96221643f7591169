import * as v from 'valibot';
import { problemOf } from '@/server/problem';
import { snapshot, type Snapshot } from '@/server/snapshot';
import { Gone } from './Gone';
import { Workspace } from './Workspace';

export const dynamic = 'force-dynamic';

export default async function Page({ params }: { params: Promise<{ project: string }> }) {
  const { project } = await params;
  if (!v.is(v.pipe(v.string(), v.uuid()), project)) return <Gone message="There is no project at this address." />;
  let found: Snapshot;
  try {
    found = await snapshot(project);
  } catch (error) {
    return <Gone message={problemOf(error).message} />;
  }
  return <Workspace key={project} id={project} snapshot={found} />;
}
