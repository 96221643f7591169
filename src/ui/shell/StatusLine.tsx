'use client';
import Box from '@mui/material/Box';
import { useEffect, useRef } from 'react';
import { toAxes, type WorkingAxes } from '@/core/datum/survey';
import type { Point } from '@/core/geometry/vector';
import { formatLength, type LengthStyle } from '@/core/units/length';

interface Report {
  position: Point | null;
  holding: string;
}

interface Status {
  hear: (listener: (report: Report) => void) => () => void;
  unit: LengthStyle;
  /** The axes that positions are told along, or null for the project's. */
  axes: WorkingAxes | null;
  /** Whether an upright drawing is seen face on: positions then are along its line and up. */
  upright: boolean;
  level: string;
  counts: string;
  work: string;
}

/** The line below everything. What follows the cursor is written straight into the page, not through React. */
export function StatusLine({ hear, unit, axes, upright, level, counts, work }: Status) {
  const position = useRef<HTMLSpanElement>(null);
  const holding = useRef<HTMLSpanElement>(null);
  useEffect(
    () =>
      hear((report) => {
        if (position.current) {
          const at = report.position && axes !== null && !upright ? toAxes(axes, report.position) : report.position;
          const [across, up] = upright ? ['along', 'height'] : ['E', 'N'];
          position.current.textContent = at
            ? `${axes !== null && !upright ? `${axes.name}: ` : ''}${across} ` +
              `${formatLength(at[0], unit)}   ${up} ${formatLength(at[1], unit)}`
            : '';
        }
        if (holding.current) holding.current.textContent = report.holding ? `holding: ${report.holding}` : '';
      }),
    [hear, unit, axes, upright],
  );
  return (
    <Box
      component="footer"
      sx={{
        height: 26,
        flex: 'none',
        display: 'flex',
        alignItems: 'center',
        gap: 2.5,
        px: 1.75,
        fontSize: 12,
        color: 'text.secondary',
        background: 'var(--mui-palette-zf-panel)',
        borderTop: '1px solid var(--mui-palette-divider)',
        whiteSpace: 'nowrap',
        overflow: 'hidden',
      }}
    >
      <Box
        component="span"
        ref={position}
        className="mono"
        data-part="position"
        sx={{ minWidth: 190, whiteSpace: 'pre' }}
      />
      <span>{level}</span>
      <span ref={holding} data-part="holding" />
      <Box component="span" sx={{ ml: 'auto' }}>
        {work}
      </Box>
      <span>{counts}</span>
    </Box>
  );
}
