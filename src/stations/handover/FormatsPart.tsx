'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { ElementKind } from '@/core/kinds/element';
import { useState } from 'react';
import type { ReadBack } from '@/core/exports/ifc/readBack';
import { api } from '@/project/api';
import { reasonOf } from '@/project/reason';
import { Note, Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';

/** Schedules by the kind of element that they list; the last adds up what is built. */
const schedules: [name: string, word: string, kind: ElementKind | null][] = [
  ['columns', 'Columns', 'column'],
  ['beams', 'Beams', 'beam'],
  ['walls', 'Walls', 'wall'],
  ['openings', 'Openings', 'opening'],
  ['slabs', 'Slabs', 'slab'],
  ['rooms', 'Rooms', 'zone'],
  ['quantities', 'Quantities', null],
];

/** The model for other programs: as IFC, and its schedules as a workbook or one by one. */
export function FormatsPart({ project, has }: { project: string; has: (kind: ElementKind) => boolean }) {
  const file = (name: string): string => `/api/projects/${project}/handover/${name}`;
  return (
    <>
      <Part title="Model, as IFC">
        <Box sx={{ color: 'text.secondary', mb: 1 }}>
          IFC4: storeys, grid, members and walls with their sections, layers and materials, what fills openings, slabs,
          rooms, roofs, outdoor surfaces and luminaires, with quantities. It is read again before it is given to you,
          and its identifiers stay the same from one time to the next.
        </Box>
        <Button variant="contained" href={file('model.ifc')} download sx={{ mr: 1 }}>
          Save IFC
        </Button>
        <ReadBackOf address={file('model.ifc/read-back')} />
      </Part>
      {has('zone') && (
        <Part title="Rooms, as gbXML">
          <Box sx={{ color: 'text.secondary', mb: 1 }}>
            Spaces on the middles of what bounds them, each closed, with areas by inner faces; surfaces with what lies
            on both sides, openings, constructions and set points. Rooms under sloped roofs are closed along their
            planes.
          </Box>
          <Button variant="contained" href={file('model.xml')} download>
            Save gbXML
          </Button>
        </Part>
      )}
      <Part title="Schedules and quantities">
        <Box sx={{ color: 'text.secondary', mb: 1 }}>
          A workbook with a sheet for each, or one of them as CSV. Net of openings and holes; what two elements share
          counts in both.
        </Box>
        <Button variant="contained" href={file('model.xlsx')} download sx={{ mb: 1 }}>
          Save workbook
        </Button>
        <Box role="group" aria-label="Schedules as CSV" sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75 }}>
          {schedules
            .filter(([, , kind]) => kind === null || has(kind))
            .map(([name, word]) => (
              <Button key={name} size="small" variant="outlined" href={file(`schedule.csv?of=${name}`)} download>
                {word}
              </Button>
            ))}
        </Box>
      </Part>
    </>
  );
}

/** What comes back when the file is read again, kind by kind; what does not is told. */
function ReadBackOf({ address }: { address: string }) {
  const [kinds, setKinds] = useState<readonly ReadBack[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const ask = async () => {
    setProblem(null);
    try {
      setKinds((await api<{ kinds: ReadBack[] }>(address)).kinds);
    } catch (error) {
      setProblem(reasonOf(error));
    }
  };
  const lost = (kinds ?? []).filter(({ model, file }) => file < model);
  return (
    <>
      <Button variant="outlined" onClick={() => void ask()}>
        Read it back
      </Button>
      {problem !== null && <Note kind="wrong">{problem}</Note>}
      {kinds !== null && (
        <Box sx={{ mt: 1 }}>
          <Table label="Read back" heads={['kind', { text: 'model', figures: true }, { text: 'file', figures: true }]}>
            {kinds.map(({ kind, model, file }) => (
              <tr key={kind}>
                <td>{kind}</td>
                <td className="figures">{model}</td>
                <td className="figures">{file}</td>
              </tr>
            ))}
          </Table>
          {lost.length > 0 && (
            <Note kind="look">
              Some have no length, no height or no level, and are not in the file. Proof, Findings names them.
            </Note>
          )}
        </Box>
      )}
    </>
  );
}
