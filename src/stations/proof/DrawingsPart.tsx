'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect } from 'react';
import type { Comparison } from '@/core/comparison/compare';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { useComparisons } from '@/project/comparisons';
import { useOverlay } from '@/project/overlay';
import { useDrawing } from '@/project/useDrawing';
import { useSession } from '@/project/useSession';
import type { Underlay } from '@/project/underlays';
import { DrawingChoice } from '@/ui/widgets/DrawingChoice';
import { Note } from '@/ui/widgets/Heading';
import { AreasPart } from './comparison/AreasPart';
import { BesidePart } from './comparison/BesidePart';
import { CoveragePart } from './comparison/CoveragePart';
import { DimensionsPart } from './comparison/DimensionsPart';
import { DriftPart } from './comparison/DriftPart';
import { LevelsPart } from './comparison/LevelsPart';

/** The model held against a drawing: what of it is in the model, how near, and what it says otherwise. */
export function DrawingsPart() {
  const here = useDrawing();
  const made = useComparisons((store) => (here === null ? undefined : store.made[here.drawing.id]));
  const show = useOverlay((store) => store.show);
  const drawingId = here?.drawing.id;
  // What lies over one drawing does not stay when another is taken, or the part is left.
  useEffect(() => () => show(null), [show, drawingId]);
  if (here === null)
    return <Note kind="plain">No drawing has been taken in, so that there is nothing to compare.</Note>;
  const { drawing, placement, underlay } = here;
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 2, mb: 1.25 }}>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <DrawingChoice drawingId={drawing.id} />
        </Box>
        <QuestionsLink drawing={drawing} />
      </Box>
      {made === undefined && <Box role="status">Comparing &hellip;</Box>}
      {made?.problem != null && <Note kind="look">{made.problem}</Note>}
      {made?.levels != null && <LevelsPart levels={made.levels} />}
      {made?.plan != null && underlay !== null && (
        <PlanParts key={drawing.id} plan={made.plan} of={{ drawing, placement, underlay }} />
      )}
    </>
  );
}

/** A plan and what it was placed by. */
export interface PlanOf {
  drawing: DrawingRow;
  placement: PlacementRow;
  underlay: Underlay;
}

function PlanParts({ plan, of }: { plan: Comparison; of: PlanOf }) {
  return (
    <>
      <CoveragePart plan={plan} of={of} />
      <DriftPart plan={plan} of={of} />
      <DimensionsPart plan={plan} of={of} />
      <AreasPart areas={plan.areas} />
      <BesidePart of={of} />
    </>
  );
}

/** The way to the page of questions to the drawing's author. */
function QuestionsLink({ drawing: { id } }: { drawing: DrawingRow }) {
  const session = useSession();
  return (
    <Button size="small" variant="text" href={`/projects/${session.id}/questions/${id}`} target="_blank" rel="noopener">
      Questions to its author
    </Button>
  );
}
