'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { api } from '@/project/api';
import { useFacts, useSession } from '@/project/useSession';

/** Holds the project as it is while it is handed over, or lets it go. */
export function HeldPart() {
  const session = useSession();
  const held = useFacts(({ history }) => history.held);
  const hold = (wanted: boolean) =>
    void api(`/api/projects/${session.id}/held`, { method: 'PUT', json: { held: wanted } }).catch((error: Error) =>
      session.tell({ kind: 'problem', text: error.message }),
    );
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, mb: 1.5 }}>
      <Box sx={{ flex: 1, color: 'text.secondary' }}>
        {held === null ? 'Anybody who may can change the model while it is handed over.' : heldWords(held)}
      </Box>
      {session.mayEdit && (
        <Button variant="outlined" onClick={() => hold(held === null)}>
          {held === null ? 'Hold it' : 'Let it go'}
        </Button>
      )}
    </Box>
  );
}

function heldWords({ at, by }: { at: string; by: string | null }): string {
  const who = by === null ? '' : ` by ${by}`;
  return `Held as it is since ${new Date(at).toLocaleString('en-GB')}${who}: nobody can change it.`;
}
