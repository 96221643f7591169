'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { api } from '@/project/api';
import { loadAnew } from '@/project/loadAnew';
import { Note, Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';
import { LinkBox } from '../LinkBox';
import { Sheet } from '../Sheet';

interface Account {
  id: string;
  name: string;
  head: boolean;
}

/** One's own account; for owners of the installation everybody's. @param people null for all others */
export function People({ self, people }: { self: Account; people: Account[] | null }) {
  return (
    <Sheet title="People" wide>
      <Own self={self} />
      {people !== null && <Everybody self={self} people={people} />}
    </Sheet>
  );
}

const middle = { verticalAlign: 'middle' } as const;

/** Does something, and keeps what went wrong with it. */
function useAct(): [string | null, (work: () => Promise<unknown>) => void] {
  const [problem, setProblem] = useState<string | null>(null);
  const act = (work: () => Promise<unknown>): void => {
    setProblem(null);
    work().catch((error: Error) => setProblem(error.message));
  };
  return [problem, act];
}

function Own({ self }: { self: Account }) {
  const [problem, act] = useAct();
  const [passwords, setPasswords] = useState({ present: '', next: '' });
  const [changed, setChanged] = useState(false);
  const signOut = (everywhere: boolean): void =>
    act(async () => {
      await api('/api/sign-out', { json: { everywhere } });
      loadAnew('/sign-in');
    });
  const change = (): void =>
    act(async () => {
      await api('/api/me', { method: 'PUT', json: passwords });
      setPasswords({ present: '', next: '' });
      setChanged(true);
    });
  return (
    <Part title={self.name}>
      <Box sx={{ display: 'flex', gap: 1, mb: 2 }}>
        <Button variant="outlined" onClick={() => signOut(false)}>
          Sign out
        </Button>
        <Button variant="outlined" onClick={() => signOut(true)}>
          Sign out everywhere
        </Button>
      </Box>
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'flex-start', flexWrap: 'wrap' }}>
        <TextField
          size="small"
          label="Present password"
          type="password"
          autoComplete="current-password"
          value={passwords.present}
          onChange={({ target }) => setPasswords({ ...passwords, present: target.value })}
        />
        <TextField
          size="small"
          label="New password"
          type="password"
          autoComplete="new-password"
          value={passwords.next}
          onChange={({ target }) => setPasswords({ ...passwords, next: target.value })}
        />
        <Button variant="outlined" onClick={change}>
          Change password
        </Button>
      </Box>
      {changed && problem === null && (
        <Box role="status" sx={{ mt: 1 }}>
          The password is changed; everywhere else you are signed out.
        </Box>
      )}
      {problem !== null && <Note kind="wrong">{problem}</Note>}
    </Part>
  );
}

function Everybody({ self, people }: { self: Account; people: Account[] }) {
  const router = useRouter();
  const [problem, act] = useAct();
  const [link, setLink] = useState<{ path: string; about: string } | null>(null);
  const make = (address: string, json: object, about: string): void =>
    act(async () => {
      // The link before was for somebody else.
      setLink(null);
      setLink({ ...(await api<{ path: string }>(address, { json })), about });
    });
  const remove = (id: string): void =>
    act(async () => {
      await api(`/api/people/${id}`, { method: 'DELETE' });
      router.refresh();
    });
  return (
    <Part
      title={`Accounts: ${people.length}`}
      aside={
        <Box>
          <Button
            variant="text"
            onClick={() => make('/api/people', { head: false }, 'Whoever opens this link makes an account.')}
          >
            Invite
          </Button>
          <Button
            variant="text"
            onClick={() => make('/api/people', { head: true }, 'Whoever opens this link becomes an owner as you are.')}
          >
            Invite an owner
          </Button>
        </Box>
      }
    >
      {link !== null && <LinkBox {...link} />}
      {problem !== null && <Note kind="wrong">{problem}</Note>}
      <Table label="Accounts" heads={['name', 'of the installation', '']}>
        {people.map(({ id, name, head }) => (
          <tr key={id}>
            <td style={middle}>{name}</td>
            <td style={middle}>{head ? 'owner' : ''}</td>
            <td style={{ textAlign: 'right' }}>
              <Button
                variant="text"
                aria-label={`New password for ${name}`}
                onClick={() => make(`/api/people/${id}`, {}, `By this link ${name} chooses a new password.`)}
              >
                New password
              </Button>
              <Button
                variant="text"
                aria-label={`Delete the account of ${name}`}
                disabled={id === self.id}
                onClick={() => remove(id)}
              >
                Delete
              </Button>
            </td>
          </tr>
        ))}
      </Table>
    </Part>
  );
}
