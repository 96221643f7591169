'use client';
import { useEffect, useState } from 'react';
import type { Step } from '@/core/underlay/recipe/steps';
import { useOverlay } from '@/project/overlay';
import { previewStep, type Underlay } from '@/project/underlays';

/**
 * While a step is looked at, shows on the board what it would touch.
 * @returns how much that is, in words; null while it is counted or where no step is given
 */
export function usePreview(
  drawingId: string,
  underlay: Underlay | null,
  step: Step | null,
  at: number | null,
): string | null {
  const show = useOverlay((store) => store.show);
  const [found, setFound] = useState<{ key: string; words: string } | null>(null);
  const key = step === null || underlay === null ? null : JSON.stringify([drawingId, underlay.basis, step, at]);
  useEffect(() => {
    if (key === null || step === null) return;
    let here = true;
    // A moment of rest before counting, so that typing does not queue work.
    const timer = setTimeout(() => {
      previewStep(drawingId, step, at).then(
        (preview) => {
          if (!here) return;
          setFound({ key, words: preview.count.words });
          show({ drawingId, origin: preview.origin, parts: [{ lines: preview.lines, tone: 'look' }] });
        },
        () => undefined,
      );
    }, 180);
    return () => {
      here = false;
      clearTimeout(timer);
      show(null);
    };
  }, [key]); // eslint-disable-line react-hooks/exhaustive-deps -- the key holds everything that the preview depends on
  return found !== null && found.key === key ? found.words : null;
}
