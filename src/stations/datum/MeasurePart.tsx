'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { PlacementRow } from '@/core/model/state';
import { formatLength, formatNumber, metresPer } from '@/core/units/length';
import { useBoard } from '@/board/boardStore';
import { projectRowOf, useProject } from '@/project/store';
import { Part } from '@/ui/widgets/Heading';

/** Measures between two snapped points, to check a size that is known. */
export function MeasurePart({ placement }: { placement: PlacementRow }) {
  const { tool, setTool, measured, setMeasured } = useBoard();
  const unit = useProject((store) => projectRowOf(store)?.displayUnit ?? 'm');
  const measuring = tool.kind === 'measure';
  const metres = measured?.to ? Math.hypot(measured.to.point[0] - measured.from.point[0], measured.to.point[1] - measured.from.point[1]) : null;
  return (
    <Part title="Measure a known size">
      {metres !== null && measured?.to && (
        <Box role="status" aria-label="Measured" sx={{ mb: 1, borderLeft: '3px solid var(--mui-palette-zf-zircon)', pl: 1.25 }}>
          <Box className="mono" sx={{ fontSize: 17, fontWeight: 600 }}>{formatLength(metres, unit)}</Box>
          <Box sx={{ color: 'text.secondary', fontSize: 12 }}>{formatNumber(metres / metresPer[placement.unit], 2)} drawing units, from {measured.from.words} to {measured.to.words}</Box>
        </Box>
      )}
      {measuring
        ? <Button variant="outlined" onClick={() => { setTool({ kind: 'look' }); setMeasured(null); }}>End measuring</Button>
        : <Button variant="outlined" onClick={() => setTool({ kind: 'measure' })}>Measure</Button>}
    </Part>
  );
}
