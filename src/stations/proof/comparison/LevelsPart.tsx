'use client';
import Box from '@mui/material/Box';
import type { LevelsBeside } from '@/core/comparison/heights';
import { counted } from '@/core/model/counted';
import { formatLength } from '@/core/units/length';
import { useLengths } from '@/project/useSession';
import { Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';

/** The elevations written in a section against the ladder. */
export function LevelsPart({ levels: { agree, differ, without, unmarked } }: { levels: LevelsBeside }) {
  const lengths = useLengths();
  const total = agree + differ.length + without.length;
  return (
    <Part title="Its elevations against the levels">
      <Box sx={{ mb: 0.75 }}>
        {total === 0 && 'No elevation is written in it.'}
        {total > 0 && (
          <>
            {counted(total, 'elevation')} written: {agree} agree with a level, <b>{differ.length} differ</b>,{' '}
            {without.length} belong to none.
          </>
        )}
      </Box>
      {differ.length > 0 && (
        <Table
          label="Elevations that differ"
          heads={['level', { text: 'written', figures: true }, { text: 'the model', figures: true }]}
        >
          {differ.map(({ written, level, name }) => (
            <tr key={`${written} ${name}`}>
              <td>{level?.name}</td>
              <td className="figures">{formatLength(written, lengths)}</td>
              <td className="figures">{formatLength(level?.elevation ?? 0, lengths)}</td>
            </tr>
          ))}
        </Table>
      )}
      {without.length > 0 && (
        <Box sx={{ mt: 0.75 }}>
          Of no level:{' '}
          {without.map(({ name, written }) => `${name ? `${name} ` : ''}${formatLength(written, lengths)}`).join(', ')}
        </Box>
      )}
      {unmarked.length > 0 && (
        <Box sx={{ mt: 0.75 }}>Not marked in it: {unmarked.map(({ name }) => name).join(', ')}</Box>
      )}
    </Part>
  );
}
