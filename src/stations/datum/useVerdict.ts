import type { UnitVerdict } from '@/core/datum/evidence/judge';
import type { Result } from '@/core/result';
import { unitOf, type Underlay } from '@/project/underlays';
import { keyOf, useAnswer } from '@/project/useAnswer';

/** What a drawing's own content says about its unit; null until that is known. */
export const useVerdict = (drawingId: string, underlay: Underlay | null): Result<UnitVerdict> | null =>
  useAnswer(keyOf(drawingId, underlay?.fileId), () => unitOf(drawingId));
