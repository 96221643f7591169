'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { unplace, type Placement } from '@/core/datum/placement';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { formatNumber } from '@/core/units/length';
import { useBoard } from '@/board/boardStore';
import { Part } from '@/ui/widgets/Heading';
import type { Replace } from './useReplace';

/** Which point of the drawing is the project's zero. */
export function OriginPart({ drawing, placement, replace }: { drawing: DrawingRow; placement: PlacementRow; replace: Replace }) {
  const { tool, setTool } = useBoard();
  const picking = tool.kind === 'pick';
  const zero = unplace(placement as Placement, [0, 0]);
  const asDrawn = Math.hypot(...zero) < 1e-9;
  const pick = () => setTool({
    kind: 'pick', prompt: 'point to be the zero',
    take: (picked) => {
      if (picked.drawingId !== drawing.id) return;
      replace({ ...placement, origin: [...picked.drawingPoint], target: [0, 0] }, `Zero of ${drawing.name} at ${picked.words}`);
    },
  });
  return (
    <Part title="Origin">
      <Box sx={{ mb: 1 }}>
        {asDrawn ? 'As drawn: the drawing\u2019s zero is the project\u2019s.' : <>The project{'\u2019'}s zero is the drawing{'\u2019'}s point <Box component="span" className="mono">{formatNumber(zero[0], 2)}, {formatNumber(zero[1], 2)}</Box> ({placement.unit}).</>}
      </Box>
      <Box sx={{ display: 'flex', gap: 1 }}>
        {picking ? <Button variant="outlined" onClick={() => setTool({ kind: 'look' })}>Stop picking</Button> : <Button variant="outlined" onClick={pick}>Pick the zero</Button>}
        {!asDrawn && <Button variant="text" onClick={() => replace({ ...placement, origin: [0, 0], target: [0, 0] }, `${drawing.name} as drawn`)}>As drawn</Button>}
      </Box>
    </Part>
  );
}
