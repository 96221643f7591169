import * as v from 'valibot';
import { uuid } from '@/core/kinds/limits';
import { listMembers } from '@/server/people/people';
import { rightOf } from '@/server/people/rights';
import { whoAsks } from '../../../whoAsks';
import { Gone } from '../Gone';
import { Members } from './Members';

export const dynamic = 'force-dynamic';

/** Who takes part in a project. */
export default async function Page({ params }: { params: Promise<{ project: string }> }) {
  const { project } = await params;
  const who = await whoAsks();
  const right = who === null || !v.is(uuid, project) ? null : await rightOf(who, project);
  if (who === null || right === null) return <Gone message="There is nothing at this address." />;
  return <Members project={project} members={await listMembers(project)} self={who.id} owns={right === 'owner'} />;
}
