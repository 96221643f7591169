'use client';
import { useMemo } from 'react';
import { photometryLabel } from '@/core/kinds/luminaire';
import { useMoment } from './useSession';

/** Options of fields that come from the project: its own photometric files, by the field's label. */
export function useOwnOptions(): ReadonlyMap<string, readonly string[]> {
  const moment = useMoment('library');
  return useMemo(() => {
    const names = Object.values(moment.model.library).flatMap((row) => (row.kind === 'photometry' ? [row.name] : []));
    return new Map([[photometryLabel, names]]);
  }, [moment]);
}
