import { unstable_rethrow } from 'next/navigation';
import type { ReactNode } from 'react';
import * as v from 'valibot';
import { uuid } from '@/core/kinds/limits';
import { expectRight } from '@/server/people/rights';
import { problemOf } from '@/server/problem';
import { whoAsks } from '../../whoAsks';
import { Gone } from './Gone';

export const dynamic = 'force-dynamic';

/** All pages of a project: those who may not see it are told what is told of one that is not there. */
export default async function Layout({
  children,
  params,
}: {
  children: ReactNode;
  params: Promise<{ project: string }>;
}) {
  const { project } = await params;
  try {
    const who = await whoAsks();
    if (who !== null && v.is(uuid, project)) await expectRight(who, project, 'reader');
  } catch (error) {
    unstable_rethrow(error);
    return <Gone message={problemOf(error).message} />;
  }
  return children;
}
