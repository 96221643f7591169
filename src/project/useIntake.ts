'use client';
import { useEffect, useState } from 'react';
import type { IntakeFile } from '@/core/handover/intake/writeIntake';
import { api } from './api';
import { useSession } from './useSession';

/** The intake report of a file: not there yet, there, or a sentence saying why not. */
export function useIntake(fileId: string | undefined): {
  address: string;
  report: IntakeFile | null;
  problem: string | null;
} {
  const project = useSession().id;
  const address = `/api/projects/${project}/files/${fileId}/intake.json`;
  const [answer, setAnswer] = useState<{ address: string; report: IntakeFile | null; problem: string | null }>({
    address: '',
    report: null,
    problem: null,
  });
  useEffect(() => {
    if (fileId === undefined) return;
    let here = true;
    api<IntakeFile>(address).then(
      (report) => {
        if (here) setAnswer({ address, report, problem: null });
      },
      (error: Error) => {
        if (here) setAnswer({ address, report: null, problem: error.message });
      },
    );
    return () => {
      here = false;
    };
  }, [address, fileId]);
  return answer.address === address ? answer : { address, report: null, problem: null };
}
