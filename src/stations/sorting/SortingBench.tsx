'use client';
import { useEffect, useState } from 'react';
import { useDrawing } from '@/project/useDrawing';
import { useModel } from '@/project/useSession';
import { picturesOf, type Pictures } from '@/project/underlays';
import { useView, type SortingPart } from '@/project/view';
import { DrawingChoice } from '@/ui/widgets/DrawingChoice';
import { BenchHead } from '@/ui/widgets/Heading';
import { NoDrawing } from '@/ui/widgets/NoDrawing';
import { TabLine } from '@/ui/widgets/TabLine';
import { BlocksPart } from './BlocksPart';
import { LayersPart } from './LayersPart';
import { PickedPart } from './PickedPart';
import { RoleMapShelf } from './RoleMapShelf';

const parts: { name: SortingPart; word: string }[] = [
  { name: 'layers', word: 'Layers' },
  { name: 'blocks', word: 'Blocks' },
  { name: 'picked', word: 'Picked lines' },
  { name: 'maps', word: 'Role maps' },
];

/** What layers, blocks and picked lines mean. */
export function SortingBench() {
  const subject = useDrawing();
  const { sortingPart, set } = useView();
  const roles = useModel('role').role;
  const [seen, setSeen] = useState<{ basis: string; pictures: Pictures } | null>(null);
  const [drawingId, basis] = [subject?.drawing.id, subject?.underlay?.basis];
  useEffect(() => {
    if (drawingId === undefined || basis === undefined) return;
    let here = true;
    picturesOf(drawingId).then(
      (pictures) => {
        if (here) setSeen({ basis, pictures });
      },
      () => undefined,
    );
    return () => {
      here = false;
    };
  }, [drawingId, basis]);
  if (!subject) return <NoDrawing title="Sorting" />;
  const { drawing, placement, underlay } = subject;
  const pictures = seen !== null && seen.basis === basis ? seen.pictures : null;
  const rows = Object.values(roles).filter((row) => row.drawingId === drawing.id);
  return (
    <>
      <BenchHead title="Sorting" about={<DrawingChoice drawingId={drawing.id} />} />
      <TabLine
        label="Parts of Sorting"
        tabs={parts}
        present={sortingPart}
        turn={(name) => set({ sortingPart: name })}
      />
      {sortingPart === 'layers' && (
        <LayersPart key={drawing.id} drawing={drawing} underlay={underlay} pictures={pictures} />
      )}
      {sortingPart === 'blocks' && (
        <BlocksPart key={drawing.id} drawing={drawing} underlay={underlay} pictures={pictures} />
      )}
      {sortingPart === 'picked' && underlay && (
        <PickedPart key={`${drawing.id} ${basis}`} drawing={drawing} placement={placement} underlay={underlay} />
      )}
      {sortingPart === 'maps' && (
        <RoleMapShelf
          key={drawing.id}
          drawing={drawing}
          rows={rows}
          blocks={pictures?.blocks.map(({ name }) => name) ?? []}
        />
      )}
    </>
  );
}
