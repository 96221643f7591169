'use client';
import Box from '@mui/material/Box';
import { useEffect, useRef } from 'react';
import type { Point } from '@/core/geometry/vector';
import { formatLength, type DisplayUnit } from '@/core/units/length';

interface Report { position: Point | null; holding: string }

/** The line below everything. What follows the cursor is written straight into the page, not through React. */
export function StatusLine({ hear, unit, level, counts, work }: { hear: (listener: (report: Report) => void) => () => void; unit: DisplayUnit; level: string; counts: string; work: string }) {
  const position = useRef<HTMLSpanElement>(null);
  const holding = useRef<HTMLSpanElement>(null);
  useEffect(() => hear((report) => {
    if (position.current) position.current.textContent = report.position ? `E ${formatLength(report.position[0], unit)}   N ${formatLength(report.position[1], unit)}` : '';
    if (holding.current) holding.current.textContent = report.holding ? `holding: ${report.holding}` : '';
  }), [hear, unit]);
  return (
    <Box component="footer" sx={{ height: 26, flex: 'none', display: 'flex', alignItems: 'center', gap: 2.5, px: 1.75, fontSize: 12, color: 'text.secondary', background: 'var(--mui-palette-zf-panel)', borderTop: '1px solid var(--mui-palette-divider)', whiteSpace: 'nowrap', overflow: 'hidden' }}>
      <Box component="span" ref={position} className="mono" data-part="position" sx={{ minWidth: 190, whiteSpace: 'pre' }} />
      <span>{level}</span>
      <span ref={holding} data-part="holding" />
      <Box component="span" sx={{ ml: 'auto' }}>{work}</Box>
      <span>{counts}</span>
    </Box>
  );
}
