'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { rights, type Right } from '@/core/people';
import { api } from '@/project/api';
import { Note } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';
import { LinkBox } from '../../../LinkBox';
import { Sheet } from '../../../Sheet';

interface Member {
  id: string;
  name: string;
  right: Right;
}

const words: Record<Right, string> = {
  reader: 'reader: looks',
  editor: 'editor: changes it',
  owner: 'owner: says who may',
};

const middle = { verticalAlign: 'middle' } as const;

/** Who takes part in a project, and as what. @param owns whether who looks may change that */
export function Members({
  project,
  members,
  self,
  owns,
}: {
  project: string;
  members: Member[];
  self: string;
  owns: boolean;
}) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const [invited, setInvited] = useState<Right>('editor');
  const [path, setPath] = useState<string | null>(null);
  const address = `/api/projects/${project}/people`;
  const act = (work: () => Promise<unknown>): void => {
    setProblem(null);
    work()
      .then(() => router.refresh())
      .catch((error: Error) => setProblem(error.message));
  };
  const change = (person: string, right: Right | null): void =>
    act(() => api(`${address}/${person}`, { method: 'PUT', json: { right } }));
  return (
    <Sheet title="Who takes part" wide>
      <Box sx={{ mb: 2 }}>
        <Button variant="text" component={Link} href={`/projects/${project}`} sx={{ ml: -1 }}>
          Back to the project
        </Button>
      </Box>
      <Table label="Who takes part" heads={['name', 'as', '']}>
        {members.map(({ id, name, right }) => (
          <tr key={id}>
            <td style={middle}>{id === self ? `${name} (you)` : name}</td>
            <td style={middle}>
              {owns ? (
                <Chosen label={`Right of ${name}`} named={false} right={right} choose={(next) => change(id, next)} />
              ) : (
                words[right]
              )}
            </td>
            <td style={{ textAlign: 'right' }}>
              {owns && (
                <Button variant="text" aria-label={`Take ${name} out`} onClick={() => change(id, null)}>
                  Take out
                </Button>
              )}
            </td>
          </tr>
        ))}
      </Table>
      {problem !== null && <Note kind="wrong">{problem}</Note>}
      {owns && (
        <Box sx={{ display: 'flex', gap: 1, mt: 2 }}>
          <Chosen label="Invite as" named right={invited} choose={setInvited} />
          <Button
            variant="contained"
            onClick={() =>
              act(async () => {
                // The link before was for somebody else.
                setPath(null);
                setPath((await api<{ path: string }>(address, { json: { right: invited } })).path);
              })
            }
          >
            Invite
          </Button>
        </Box>
      )}
      {path !== null && <LinkBox path={path} about="Whoever opens this link takes part in this project." />}
    </Sheet>
  );
}

/** @param named whether its label is shown, or only told */
function Chosen({
  label,
  named,
  right,
  choose,
}: {
  label: string;
  named: boolean;
  right: Right;
  choose: (right: Right) => void;
}) {
  return (
    <TextField
      select
      size="small"
      label={named ? label : undefined}
      slotProps={{ select: { SelectDisplayProps: { 'aria-label': label } } }}
      value={right}
      onChange={({ target }) => choose(rights.find((one) => one === target.value) ?? right)}
      sx={{ minWidth: 190 }}
    >
      {rights.map((one) => (
        <MenuItem key={one} value={one}>
          {words[one]}
        </MenuItem>
      ))}
    </TextField>
  );
}
