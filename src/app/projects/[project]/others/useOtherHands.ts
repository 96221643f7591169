import { useMemo } from 'react';
import type { OtherHand } from '@/board/scene';
import { useOthers } from '@/project/useSession';
import { nameOf } from './nameOf';

/** What others have in hand who look at the same level, or at the same drawing face on. */
export function useOtherHands(levelId: string | null, faceOn: string | null): readonly OtherHand[] {
  const others = useOthers();
  return useMemo(
    () =>
      others
        .filter((other) => (faceOn === null ? other.levelId === levelId : true) && other.faceOn === faceOn)
        .map(({ place, selected, draft, ...other }) => ({ name: nameOf(other), place, selected, draft })),
    [others, levelId, faceOn],
  );
}
