'use client';
import { keyOf, useAnswer, valueOf } from '@/project/useAnswer';
import { useDrawing } from '@/project/useDrawing';
import { useModel } from '@/project/useSession';
import { picturesOf } from '@/project/underlays';
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
  const drawingId = subject?.drawing.id ?? '';
  const answer = useAnswer(subject && keyOf(drawingId, subject.underlay?.basis), () => picturesOf(drawingId));
  if (!subject) return <NoDrawing title="Sorting" />;
  const { drawing, placement, underlay } = subject;
  const pictures = valueOf(answer);
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
        <PickedPart
          key={`${drawing.id} ${underlay.basis}`}
          drawing={drawing}
          placement={placement}
          underlay={underlay}
        />
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
