'use client';
import { put } from '@/core/model/edits';
import { plainStructure, type StructureSettings } from '@/core/model/structureSettings';
import { projectRowOf } from '@/project/projectRow';
import { useCommit, useProjectRow } from '@/project/useSession';

/** What the trial of this project starts from, and the way to change it: one step, that can be undone. */
export function useStructure(): {
  settings: StructureSettings;
  change: (label: string, make: (settings: StructureSettings) => StructureSettings) => void;
} {
  const { structure } = useProjectRow();
  const commit = useCommit();
  return {
    settings: structure ?? plainStructure,
    change: (label, make) =>
      void commit((now) => {
        const row = projectRowOf(now);
        return { label, changes: [put('project', { ...row, structure: make(row.structure ?? plainStructure) })] };
      }),
  };
}
