'use client';
import Box from '@mui/material/Box';
import { scaleLog } from 'd3';
import type { IntakeFile } from '@/core/handover/intake/writeIntake';

/** Largest width and height of the picture, in pixels. */
const [widest, highest] = [340, 150];

/** A picture of where content lies: the darker, the more lines; the main content framed, strays marked. */
export function OverviewPicture({
  overview,
  main,
  strays,
}: {
  overview: NonNullable<IntakeFile['overview']>;
  main: IntakeFile['extents']['main'];
  strays: IntakeFile['strays'];
}) {
  const [[x0, y0], [x1, y1]] = overview.box;
  const cell = Math.min(widest / overview.columns, highest / overview.rows);
  const [width, height] = [overview.columns * cell, overview.rows * cell];
  const perUnit =
    overview.columns > 1 || overview.rows > 1
      ? cell / Math.max((x1 - x0) / overview.columns, (y1 - y0) / overview.rows)
      : 1;
  const at = ([x, y]: readonly [number, number]): [number, number] => [(x - x0) * perUnit, height - (y - y0) * perUnit];
  const ink = scaleLog([1, Math.max(2, ...overview.counts)], [0.18, 0.95]).clamp(true);
  const frame = main && { low: at(main[0]), high: at(main[1]) };
  return (
    <Box sx={{ my: 1 }}>
      <svg
        width={width}
        height={height + 2}
        viewBox={`-6 -6 ${width + 12} ${height + 12}`}
        role="img"
        aria-label={`Where the content lies${strays.length > 0 ? `, with ${strays.length} strays` : ''}`}
        style={{
          background: 'var(--mui-palette-zf-board)',
          border: '1px solid var(--mui-palette-divider)',
          borderRadius: 4,
        }}
      >
        {overview.counts.map((count, i) =>
          count === 0 ? null : (
            <rect
              key={i}
              x={(i % overview.columns) * cell}
              y={height - (Math.floor(i / overview.columns) + 1) * cell}
              width={cell}
              height={cell}
              fill="var(--mui-palette-zf-ink)"
              opacity={ink(count)}
            />
          ),
        )}
        {frame && (
          <rect
            x={frame.low[0]}
            y={frame.high[1]}
            width={Math.max(4, frame.high[0] - frame.low[0])}
            height={Math.max(4, frame.low[1] - frame.high[1])}
            fill="none"
            stroke="var(--mui-palette-zf-zircon)"
            strokeWidth={1.5}
          />
        )}
        {strays.map(({ box }, i) => {
          const [x, y] = at([(box[0][0] + box[1][0]) / 2, (box[0][1] + box[1][1]) / 2]);
          return (
            <circle key={i} cx={x} cy={y} r={4.5} fill="none" stroke="var(--mui-palette-zf-amber)" strokeWidth={1.75} />
          );
        })}
      </svg>
      <Box sx={{ fontSize: 12, color: 'text.secondary' }}>
        Framed: the main content.{strays.length > 0 && ' Ringed: strays.'}
      </Box>
    </Box>
  );
}
