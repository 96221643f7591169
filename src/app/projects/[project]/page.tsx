import * as v from 'valibot';
import { uuid } from '@/core/kinds/limits';
import { Gone } from './Gone';
import { Workspace } from './Workspace';

export const dynamic = 'force-dynamic';

/** A project; its rows are asked for by the page, packed. */
export default async function Page({ params }: { params: Promise<{ project: string }> }) {
  const { project } = await params;
  if (!v.is(uuid, project)) return <Gone message="There is no project at this address." />;
  return <Workspace key={project} id={project} />;
}
