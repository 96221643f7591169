'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import type { Right } from '@/core/people';
import { api } from '@/project/api';
import { loadAnew } from '@/project/loadAnew';
import { Note } from '@/ui/widgets/Heading';
import { CredentialsForm } from '../../CredentialsForm';
import { Sheet } from '../../Sheet';

interface Invitation {
  project: string | null;
  right: Right | null;
  resets: string | null;
}

/** Where a link leads to: to an account, to a project, or to a new password. */
export function Join({
  token,
  invitation,
  self,
}: {
  token: string;
  invitation: Invitation | null;
  self: string | null;
}) {
  const [problem, setProblem] = useState<string | null>(null);
  const join = async (asked: object): Promise<void> => {
    await api('/api/join', { json: { ...asked, token } });
    loadAnew('/');
  };
  if (invitation === null)
    return (
      <Sheet title="This link is not good any more">It was used already, or is too old. Ask for another one.</Sheet>
    );
  const { project, right, resets } = invitation;
  if (resets !== null)
    return (
      <Sheet title={`A new password for ${resets}`}>
        <CredentialsForm named={false} fresh word="Apply" send={(_, password) => join({ as: 'reset', password })} />
      </Sheet>
    );
  return (
    <Sheet title={project === null ? 'Make your account' : `Take part in ${project}`}>
      {right !== null && <Box sx={{ mb: 2 }}>You are invited as its {right}.</Box>}
      {self !== null && project !== null ? (
        <>
          <Button
            variant="contained"
            onClick={() => void join({ as: 'self' }).catch((error: Error) => setProblem(error.message))}
          >
            Take part as {self}
          </Button>
          {problem !== null && <Note kind="wrong">{problem}</Note>}
        </>
      ) : (
        <>
          <CredentialsForm named fresh word="Create" send={(name, password) => join({ as: 'new', name, password })} />
          {project !== null && (
            <Box sx={{ color: 'text.secondary', mt: 2 }}>
              You have an account? Sign in first, then open this link again.
            </Box>
          )}
        </>
      )}
    </Sheet>
  );
}
