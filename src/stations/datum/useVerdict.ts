import { useEffect, useState } from 'react';
import type { UnitVerdict } from '@/core/datum/evidence/judge';
import { unitOf, type Underlay } from '@/project/underlays';

/** What a drawing's own content says about its unit; null until that is known. */
export function useVerdict(drawingId: string, underlay: Underlay | null): UnitVerdict | null {
  const [found, setFound] = useState<{ fileId: string; verdict: UnitVerdict } | null>(null);
  const fileId = underlay?.fileId;
  useEffect(() => {
    if (fileId === undefined) return;
    let here = true;
    unitOf(drawingId).then(
      (verdict) => {
        if (here) setFound({ fileId, verdict });
      },
      () => undefined,
    );
    return () => {
      here = false;
    };
  }, [drawingId, fileId]);
  return found !== null && found.fileId === fileId ? found.verdict : null;
}
