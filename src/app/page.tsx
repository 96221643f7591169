import { listProjects, type ProjectCard } from '@/server/projects';
import { problemOf } from '@/server/problem';
import { ProjectList } from './ProjectList';

export const dynamic = 'force-dynamic';

export default async function Page() {
  let projects: ProjectCard[] = [];
  let problem: string | null = null;
  try {
    projects = await listProjects();
  } catch (error) {
    problem = problemOf(error).message;
  }
  return <ProjectList projects={projects} problem={problem} />;
}
