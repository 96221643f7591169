'use client';
import type { IntakeFile } from '@/core/handover/intake/writeIntake';
import { api } from './api';
import { keyOf, useAnswer } from './useAnswer';
import { useSession } from './useSession';

/** The intake report of a file: not there yet, there, or a sentence saying why not. */
export function useIntake(fileId: string | undefined): {
  address: string;
  report: IntakeFile | null;
  problem: string | null;
} {
  const project = useSession().id;
  const address = `/api/projects/${project}/files/${fileId}/intake.json`;
  const answer = useAnswer(keyOf(project, fileId), () => api<IntakeFile>(address));
  return { address, report: answer?.ok ? answer.value : null, problem: answer?.ok === false ? answer.message : null };
}
