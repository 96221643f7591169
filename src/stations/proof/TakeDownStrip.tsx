import Box from '@mui/material/Box';
import { scaleLinear } from 'd3';
import type { Model } from '@/core/model/model';
import type { ColumnLine } from '@/core/structure/takeDown';
import { kilonewtons } from './trialWords';

/** The strip's measures, pixels: its width beside the names, a storey's height, and both bars. */
const [width, storey, thick, thin] = [150, 40, 15, 4];

/** What a line of columns carries, storey by storey: thick as it was calculated, thin beneath it by hand. */
export function TakeDownStrip({ line, model }: { line: ColumnLine; model: Model }) {
  const most = Math.max(1, ...line.storeys.flatMap(({ carried, byHand }) => [carried || 0, byHand]));
  const x = scaleLinear([0, most], [0, width]);
  const areas = line.storeys.map(({ area }) => `${area.toFixed(1)} m\u00b2`).join(', ');
  return (
    <>
      <Box
        component="svg"
        role="img"
        aria-label="The column line taken down"
        viewBox={`0 0 330 ${line.storeys.length * storey}`}
        sx={{ width: '100%', maxWidth: 380, display: 'block', fontSize: 13, fill: 'currentColor' }}
      >
        {line.storeys.map(({ element, level, carried, byHand }, i) => (
          <g key={element} transform={`translate(0 ${i * storey})`}>
            <text x={0} y={16}>
              {model.level[level]?.name ?? ''}
            </text>
            <rect
              x={86}
              y={4}
              width={x(Math.max(0, carried || 0))}
              height={thick}
              fill="var(--mui-palette-zf-column)"
            />
            <rect x={86} y={21} width={x(Math.max(0, byHand))} height={thin} fill="var(--mui-palette-zf-grid)" />
            <text x={92 + x(Math.max(carried || 0, byHand, 0))} y={16} className="mono">
              {Number.isFinite(carried) ? `${kilonewtons(carried, 0)} kN` : 'unknown'}
            </text>
          </g>
        ))}
      </Box>
      <Box sx={{ color: 'text.secondary', fontSize: 12 }}>
        Thick: as calculated. Thin: by hand, from the part of each floor that is nearest, {areas}.
      </Box>
    </>
  );
}
