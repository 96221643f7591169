import { listProjects, type ProjectCard } from '@/server/projects';
import { problemOf } from '@/server/problem';
import { unstable_rethrow } from 'next/navigation';
import type { Person } from '@/server/people/sessions';
import { whoAsks } from './whoAsks';
import { ProjectList } from './ProjectList';

export const dynamic = 'force-dynamic';

export default async function Page() {
  let projects: ProjectCard[] = [];
  let problem: string | null = null;
  let who: Person | null = null;
  try {
    who = await whoAsks();
    projects = await listProjects(who);
  } catch (error) {
    unstable_rethrow(error);
    problem = problemOf(error).message;
  }
  return <ProjectList projects={projects} problem={problem} self={who?.name ?? null} />;
}
