'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { measure, measureModes, type MeasureMode, type Measurement } from '@/core/datum/measure';
import { metresPerDrawn } from '@/core/datum/placement';
import type { PlacementRow } from '@/core/model/state';
import { formatAngle, formatDirection, type AngleConvention } from '@/core/units/angle';
import { formatArea, formatLength, formatNumber, type LengthStyle } from '@/core/units/length';
import { useBoard } from '@/board/boardStore';
import { useLengths, useProjectRow } from '@/project/useSession';
import { useView } from '@/project/view';
import { Part } from '@/ui/widgets/Heading';

const words: Record<MeasureMode, string> = { distance: 'Distance', run: 'Run', angle: 'Angle', area: 'Area' };

/** Measures on the board, in the project's unit and in the drawing's, to check a size that is known. */
export function MeasurePart({ placement }: { placement: PlacementRow }) {
  const { tool, setTool, measured, setMeasured } = useBoard();
  const lengths = useLengths();
  const project = useProjectRow();
  const axesId = useView((view) => view.axesId);
  const axes = project?.axes.find(({ id }) => id === axesId) ?? null;
  const mode = tool.kind === 'measure' ? tool.mode : null;
  const found =
    measured && measured.points.length > 0
      ? measure(
          measured.mode,
          measured.points.map(({ point }) => point),
          axes,
        )
      : null;
  return (
    <Part title="Measure">
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mb: 1 }}>
        {measureModes.map((each) => (
          <Button
            key={each}
            variant={mode === each ? 'contained' : 'outlined'}
            aria-pressed={mode === each}
            onClick={() => setTool(mode === each ? { kind: 'look' } : { kind: 'measure', mode: each })}
          >
            {words[each]}
          </Button>
        ))}
        {measured && (
          <Button variant="text" onClick={() => setMeasured(null)}>
            Clear
          </Button>
        )}
      </Box>
      {mode !== null && !measured?.done && <Box sx={{ color: 'text.secondary', mb: 1 }}>{hint[mode]}</Box>}
      {found && measured && (
        <Box
          role="status"
          aria-label="Measured"
          sx={{ borderLeft: '3px solid var(--mui-palette-zf-zircon)', pl: 1.25 }}
        >
          <Box className="mono" sx={{ fontSize: 17, fontWeight: 600 }}>
            {mainWords(found, lengths)}
          </Box>
          <Box sx={{ color: 'text.secondary', fontSize: 12 }}>
            {asideWords(found, lengths, metresPerDrawn(placement), project?.angles ?? 'east', axes?.name ?? null).map(
              (line) => (
                <div key={line}>{line}</div>
              ),
            )}
            {found.mode === 'distance' && (
              <div>
                from {measured.points[0].words} to {measured.points[measured.points.length - 1].words}
              </div>
            )}
          </Box>
        </Box>
      )}
    </Part>
  );
}

const hint: Record<MeasureMode, string> = {
  distance: 'Click two points.',
  run: 'Click along the chain, for example from grid line to grid line; Enter ends it, Backspace takes the last point back.',
  angle: 'Click one arm, the corner, and the other arm.',
  area: 'Click the corners in turn; Enter closes the area.',
};

function mainWords(found: Measurement, lengths: LengthStyle): string {
  if (found.mode === 'angle') return formatAngle(found.angle, 3);
  return found.mode === 'area' ? formatArea(found.area, lengths) : formatLength(found.length, lengths);
}

/** The same in the drawing's own unit, and in parts. */
function asideWords(
  found: Measurement,
  lengths: LengthStyle,
  metresPerUnit: number,
  angles: AngleConvention,
  axes: string | null,
): string[] {
  const drawn = (metres: number) => `${formatNumber(metres / metresPerUnit, 2)} drawing units`;
  switch (found.mode) {
    case 'distance':
      return [
        drawn(found.length),
        `${formatLength(found.across, lengths)} across, ${formatLength(found.up, lengths)} up${axes ? `, along ${axes}` : ''}`,
        `at ${formatDirection(found.direction, angles)}`,
      ];
    case 'run':
      return [found.spacings.map((spacing) => formatLength(spacing, lengths)).join(' + '), drawn(found.length)];
    case 'angle':
      return [];
    case 'area':
      return [
        `${formatNumber(found.area / metresPerUnit ** 2, 0)} drawing units\u00b2`,
        `${formatLength(found.perimeter, lengths)} round it`,
      ];
  }
}
