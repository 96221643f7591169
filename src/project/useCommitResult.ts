'use client';
import type { Edit } from '@/core/model/edits';
import type { ProjectState } from '@/core/model/state';
import type { Result } from '@/core/result';
import { useProject } from './store';

/** Commits an edit that may be refused; the refusal is said in passing. @returns whether it was applied */
export function useCommitResult(): (make: (state: ProjectState) => Result<Edit>) => Promise<boolean> {
  const { commit, tell } = useProject();
  return (make) =>
    commit((state) => {
      const result = make(state);
      if (result.ok) return result.value;
      tell({ kind: 'problem', text: result.message });
      return null;
    });
}
