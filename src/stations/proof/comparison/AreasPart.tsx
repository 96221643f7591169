'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { AreasBeside, WrittenArea } from '@/core/comparison/areas';
import { squareMetres } from '@/core/kinds/figures';
import { counted } from '@/core/model/counted';
import { useSelected } from '@/project/selected';
import { useModel } from '@/project/useSession';
import { Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';
import { lookAround } from './look';

/** The areas written in rooms against the zones; nothing where none is written. */
export function AreasPart({ areas: { agree, differ, without } }: { areas: AreasBeside }) {
  const model = useModel('element');
  const total = agree + differ.length + without.length;
  if (total === 0) return null;
  const look = ({ id, at }: WrittenArea) => {
    useSelected.getState().select([id]);
    lookAround([at], model.element[id]?.levelId ?? null);
  };
  return (
    <Part title="Areas written in rooms">
      <Box sx={{ mb: 0.75 }}>
        {counted(total, 'area')} written: {agree} agree within 2 %, <b>{differ.length} differ</b>, {without.length}{' '}
        stand in no zone.
      </Box>
      {differ.length > 0 && (
        <Table
          label="Areas that differ"
          heads={['zone', { text: 'written', figures: true }, { text: 'the model', figures: true }]}
        >
          {differ.map((one) => (
            <tr key={one.id}>
              <td>
                <Button size="small" variant="text" onClick={() => look(one)}>
                  {one.name || 'a zone'}
                </Button>
              </td>
              <td className="figures">{squareMetres(one.written)}</td>
              <td className="figures">{squareMetres(one.area)}</td>
            </tr>
          ))}
        </Table>
      )}
    </Part>
  );
}
