'use client';
import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import type { MixedBlock } from '@/core/datum/evidence/mixedBlocks';
import { place } from '@/core/datum/placement';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { unitNames } from '@/core/units/length';
import { useBoard } from '@/board/boardStore';
import { mixedIn, type Underlay } from '@/project/underlays';
import { Note } from '@/ui/widgets/Heading';

/** Blocks that came in at the size of another unit, each with a way there. */
export function MixedNote({
  drawing,
  placement,
  underlay,
}: {
  drawing: DrawingRow;
  placement: PlacementRow;
  underlay: Underlay;
}) {
  const [found, setFound] = useState<{ basis: string; blocks: MixedBlock[] } | null>(null);
  const lookAt = useBoard((board) => board.lookAt);
  useEffect(() => {
    let here = true;
    mixedIn(drawing.id).then(
      (blocks) => {
        if (here) setFound({ basis: underlay.basis, blocks });
      },
      () => undefined,
    );
    return () => {
      here = false;
    };
  }, [drawing.id, underlay.basis]);
  if (found?.basis !== underlay.basis) return null;
  return found.blocks.map(({ block, inserts, unit, words, places }) => {
    const [x, y] = place(placement, places[0]);
    return (
      <Note key={block} kind="look">
        <b>
          Block {block} looks as if it were in {unitNames[unit]}.
        </b>{' '}
        {words} It is there {inserts === 1 ? 'once' : `${inserts} times`}.{' '}
        <Button variant="text" onClick={() => lookAt([x - 3, y - 3, x + 3, y + 3])}>
          Show one
        </Button>
      </Note>
    );
  });
}
