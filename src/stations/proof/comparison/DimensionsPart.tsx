'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { Comparison } from '@/core/comparison/compare';
import type { ModelDimension } from '@/core/comparison/dimensions';
import { unplace, type Placement } from '@/core/datum/placement';
import { counted } from '@/core/model/counted';
import { formatLength } from '@/core/units/length';
import { useOverlay } from '@/project/overlay';
import { useSelected } from '@/project/selected';
import { useLengths } from '@/project/useSession';
import { Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';
import type { PlanOf } from '../DrawingsPart';
import { lookAround } from './look';

/** Of dimensions with nothing at an end so many are told. */
const told = 12;

/** The dimensions of a drawing against the distances between the same things of the model. */
export function DimensionsPart({ plan, of }: { plan: Comparison; of: PlanOf }) {
  const { agree, differ, without } = plan.dimensions;
  const total = agree + differ.length + without.length;
  const lengths = useLengths();
  const show = useOverlay((store) => store.show);
  const look = ({ ends, elements }: ModelDimension) => {
    const [a, b] = ends.map((p) => unplace(of.placement as Placement, p));
    const lines = Float32Array.from([0, 0, b[0] - a[0], b[1] - a[1]]);
    show({ drawingId: of.drawing.id, origin: [a[0], a[1]], parts: [{ tone: 'look', lines }] });
    useSelected.getState().select(elements);
    lookAround(ends, of.drawing.levelId);
  };
  const button = (one: ModelDimension) => (
    <Button size="small" variant="text" onClick={() => look(one)}>
      {one.text}
    </Button>
  );
  return (
    <Part title="Its dimensions against the model">
      {total === 0 && <Box sx={{ color: 'text.secondary' }}>It writes no dimension between two things.</Box>}
      {total > 0 && (
        <Box sx={{ mb: 0.75 }}>
          {counted(total, 'dimension')}: {agree} agree within 1 mm or half their last digit,{' '}
          <b>{differ.length} differ</b>, {without.length} have no element at an end.
        </Box>
      )}
      {differ.length > 0 && (
        <Table
          label="Dimensions that the model differs from"
          heads={['text', { text: 'says', figures: true }, { text: 'the model', figures: true }]}
        >
          {differ.map((one) => (
            <tr key={one.handle}>
              <td>{button(one)}</td>
              <td className="figures">{formatLength(one.written, lengths)}</td>
              <td className="figures">{formatLength(one.modelled ?? 0, lengths)}</td>
            </tr>
          ))}
        </Table>
      )}
      {without.length > 0 && (
        <Box sx={{ mt: 0.75 }}>
          No element at an end:{' '}
          {without.slice(0, told).map((one) => (
            <span key={one.handle}>{button(one)}</span>
          ))}
          {without.length > told && `and ${without.length - told} more`}
        </Box>
      )}
    </Part>
  );
}
