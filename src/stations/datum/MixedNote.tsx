'use client';
import Button from '@mui/material/Button';
import { place } from '@/core/datum/placement';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { unitNames } from '@/core/units/length';
import { useBoard } from '@/board/boardStore';
import { keyOf, useAnswer, valueOf } from '@/project/useAnswer';
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
  const lookAt = useBoard((board) => board.lookAt);
  const blocks = valueOf(useAnswer(keyOf(drawing.id, underlay.basis), () => mixedIn(drawing.id)));
  return blocks?.map(({ block, inserts, unit, words, places }) => {
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
