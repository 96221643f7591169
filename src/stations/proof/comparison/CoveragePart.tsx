'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { scaleLinear } from 'd3';
import type { Comparison } from '@/core/comparison/compare';
import { roleNames } from '@/core/sorting/roles';
import { useOverlay } from '@/project/overlay';
import { Note, Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';
import type { PlanOf } from '../DrawingsPart';

const sumOf = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0);

/** What is over the board while the rest is shown. */
const rested = 'rest';

/** How much of a drawing's lines some element accounts for. */
export function CoveragePart({ plan: { coverage, rest }, of }: { plan: Comparison; of: PlanOf }) {
  const { overlay, show } = useOverlay();
  const shown = overlay?.by === rested;
  const [drawn, covered] = [sumOf(coverage.map((row) => row.drawn)), sumOf(coverage.map((row) => row.covered))];
  const { drawing, underlay } = of;
  const press = () => {
    const { origin } = underlay.primitives;
    const parts = [{ tone: 'wrong', lines: rest }] as const;
    show(shown ? null : { drawingId: drawing.id, by: rested, origin, alone: true, parts: [...parts] });
  };
  return (
    <Part
      title="What of it is in the model"
      aside={
        rest.length > 0 && (
          <Button variant="text" aria-pressed={shown} onClick={press}>
            {shown ? 'Hide the rest' : 'Show the rest'}
          </Button>
        )
      }
    >
      {coverage.length === 0 && <Note kind="plain">No layer of it has a role yet. Give roles at Sorting.</Note>}
      {drawn > 0 && (
        <Box sx={{ mb: 0.75 }}>
          <b>{percent(covered / drawn)}</b> of <span className="mono">{drawn.toFixed(1)} m</span> of lines with a role
          belong to an element of its level.
        </Box>
      )}
      {coverage.length > 0 && (
        <Table
          label="Coverage"
          heads={['role', 'layer', { text: 'drawn, m', figures: true }, { text: 'in the model', figures: true }]}
        >
          {coverage.map((row) => (
            <tr key={`${row.role} ${row.layer}`}>
              <td>{roleNames[row.role]}</td>
              <td style={{ overflowWrap: 'anywhere' }}>{row.layer}</td>
              <td className="figures">{row.drawn.toFixed(1)}</td>
              <td className="figures">
                {percent(row.covered / row.drawn)}
                <Strip share={row.covered / row.drawn} />
              </td>
            </tr>
          ))}
        </Table>
      )}
    </Part>
  );
}

/** Whole per cent; what is not whole is never called so. */
const percent = (share: number): string => `${share > 0.995 && share < 1 - 1e-9 ? 99 : Math.round(100 * share)} %`;

/** A share as a strip. */
function Strip({ share }: { share: number }) {
  const x = scaleLinear([0, 1], [0, 64]);
  return (
    <svg viewBox="0 0 64 4" width={64} height={4} aria-hidden style={{ display: 'block', marginLeft: 'auto' }}>
      <rect width={64} height={4} fill="var(--mui-palette-zf-line)" />
      <rect width={x(share)} height={4} fill="var(--mui-palette-zf-zircon)" />
    </svg>
  );
}
