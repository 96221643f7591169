'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { bin, scaleLinear, scaleSqrt } from 'd3';
import { driftTones, onLines, toneOf, type Comparison, type DriftTone } from '@/core/comparison/compare';
import type { Drift } from '@/core/comparison/drift';
import { putBack } from '@/core/comparison/putBack';
import { kinds, nameWords } from '@/core/kinds/kinds';
import { counted } from '@/core/model/counted';
import { useOverlay, type OverlayPart } from '@/project/overlay';
import { useSelected } from '@/project/selected';
import { useCommit, useLengths, useMayEdit, useModel } from '@/project/useSession';
import { useView } from '@/project/view';
import { Part } from '@/ui/widgets/Heading';
import { LengthField } from '@/ui/widgets/LengthField';
import { Table } from '@/ui/widgets/Table';
import type { PlanOf } from '../DrawingsPart';
import { lookAround } from './look';

/** What is over the board while elements are tinted. */
const tinted = 'drift';
const tones: Record<DriftTone, OverlayPart['tone']> = { on: 'evidence', near: 'look', off: 'wrong' };
/** Of what lies off its lines so many are told. */
const told = 12;

/** How far elements lie from the lines they were made of. */
export function DriftPart({ plan, of }: { plan: Comparison; of: PlanOf }) {
  const { drift, undrawn, tint } = plan;
  const { driftTolerance: tolerance, set } = useView();
  const lengths = useLengths();
  const { overlay, show } = useOverlay();
  const shown = overlay?.by === tinted;
  const press = () => {
    const parts = driftTones.map((tone) => ({ tone: tones[tone], lines: tint[tone] }));
    const { origin } = of.underlay.primitives;
    show(shown ? null : { drawingId: of.drawing.id, by: tinted, origin, parts });
  };
  const off = drift.filter((one) => toneOf(one, tolerance) === 'off').sort((a, b) => b.away - a.away);
  const on = drift.filter((one) => toneOf(one, tolerance) === 'on').length;
  return (
    <Part
      title="How near it lies to its lines"
      aside={
        drift.length > 0 && (
          <Button variant="text" aria-pressed={shown} onClick={press}>
            {shown ? 'Hide the tint' : 'Tint on the board'}
          </Button>
        )
      }
    >
      <Box sx={{ mb: 0.75 }}>
        {drift.length === 0 && 'No element of this level was made of lines of this drawing.'}
        {drift.length > 0 && (
          <>
            Of {counted(drift.length, 'element')} {on} lie on their lines, {drift.length - on - off.length} within the
            tolerance, <b>{off.length} further off</b>.
          </>
        )}
        {undrawn > 0 &&
          ` ${counted(undrawn, 'element')} of the level ${undrawn === 1 ? 'is' : 'are'} not of this drawing.`}
      </Box>
      {drift.length > 0 && <DriftChart drift={drift} tolerance={tolerance} />}
      <Box sx={{ mt: 1 }}>
        <LengthField
          label="Tolerance"
          value={tolerance}
          lengths={lengths}
          least={onLines}
          leastWords="Sizes are rounded: at least 2 mm."
          change={(value) => set({ driftTolerance: value })}
        />
      </Box>
      {off.length > 0 && <OffLines off={off} of={of} />}
    </Part>
  );
}

/** A histogram of the distances; upwards the root of the count, so that a few far ones are seen beside many near. */
function DriftChart({ drift, tolerance }: { drift: readonly Drift[]; tolerance: number }) {
  const [width, height] = [300, 60];
  const most = Math.max(...drift.map(({ away }) => away), 1.5 * tolerance);
  const x = scaleLinear([0, most], [0, width]);
  const bins = bin<Drift, number>()
    .value(({ away }) => away)
    .domain([0, most])
    .thresholds(30)([...drift]);
  const y = scaleSqrt([0, Math.max(...bins.map((b) => b.length))], [0, height - 4]);
  return (
    <svg
      viewBox={`0 0 ${width} ${height + 14}`}
      width="100%"
      role="img"
      aria-label={`Distances of ${drift.length} elements from their lines, up to ${millimetres(most)}`}
    >
      {bins.map((b) => (
        <rect
          key={b.x0}
          x={x(b.x0!) + 0.5}
          width={Math.max(0.5, x(b.x1!) - x(b.x0!) - 1)}
          y={height - y(b.length)}
          height={y(b.length)}
          fill={b.x0! >= tolerance ? 'var(--mui-palette-zf-clay)' : 'var(--mui-palette-zf-zircon)'}
        />
      ))}
      <path d={`M0 ${height + 0.5}h${width}`} stroke="var(--mui-palette-zf-line)" />
      <path d={`M${x(tolerance)} 0V${height}`} stroke="var(--mui-palette-zf-ink)" strokeWidth={1.5} />
      <text x={0} y={height + 12} fontSize={10} fill="var(--mui-palette-zf-ink2)">
        0
      </text>
      <text x={width} y={height + 12} fontSize={10} textAnchor="end" fill="var(--mui-palette-zf-ink2)">
        {millimetres(most)}
      </text>
    </svg>
  );
}

const millimetres = (metres: number): string => `${(1000 * metres).toFixed(metres < 0.01 ? 1 : 0)} mm`;

/** What lies further off than the tolerance: looked at one by one, put back all at once where that is certain. */
function OffLines({ off, of }: { off: readonly Drift[]; of: PlanOf }) {
  const model = useModel('element');
  const commit = useCommit();
  const mayEdit = useMayEdit();
  const certain = off.filter(({ back }) => back !== null);
  const look = ({ id, at }: Drift) => {
    useSelected.getState().select([id]);
    lookAround([at], of.drawing.levelId);
  };
  return (
    <>
      <Table label="Off their lines" heads={['element', { text: 'off by', figures: true }]}>
        {off.slice(0, told).map((one) => {
          const row = model.element[one.id];
          return (
            <tr key={one.id}>
              <td>
                <Button size="small" variant="text" onClick={() => look(one)}>
                  {[kinds[one.kind].names[0], row === undefined ? '' : nameWords(row)].join(' ')}
                </Button>
              </td>
              <td className="figures">{millimetres(one.away)}</td>
            </tr>
          );
        })}
      </Table>
      {off.length > told && (
        <Box sx={{ color: 'text.secondary' }}>and {off.length - told} more, among the findings</Box>
      )}
      {mayEdit && certain.length > 0 && (
        <Button
          size="small"
          variant="outlined"
          sx={{ mt: 0.75 }}
          onClick={() => void commit((now) => putBack(now, off))}
        >
          Put {certain.length === 1 ? 'it' : `${certain.length}`} back
        </Button>
      )}
    </>
  );
}
