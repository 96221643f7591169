'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState, type FormEvent } from 'react';
import { Note } from '@/ui/widgets/Heading';

/** What is asked for: a name where it is not known, and the password, one's own or a new one. */
export function CredentialsForm({
  named,
  fresh,
  word,
  send,
}: {
  named: boolean;
  fresh: boolean;
  word: string;
  send: (name: string, password: string) => Promise<void>;
}) {
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    setProblem(null);
    await send(name, password).catch((error: Error) => setProblem(error.message));
    setBusy(false);
  };
  return (
    <Box component="form" onSubmit={(event) => void submit(event)} sx={{ display: 'grid', gap: 1.5 }}>
      {named && (
        <TextField
          size="small"
          label="Name"
          value={name}
          autoFocus
          autoComplete="username"
          onChange={({ target }) => setName(target.value)}
        />
      )}
      <TextField
        size="small"
        label={fresh ? 'New password' : 'Password'}
        type="password"
        value={password}
        autoFocus={!named}
        autoComplete={fresh ? 'new-password' : 'current-password'}
        helperText={fresh ? 'At least 12 characters; a sentence is easy to keep.' : undefined}
        onChange={({ target }) => setPassword(target.value)}
      />
      {problem !== null && <Note kind="wrong">{problem}</Note>}
      <Box>
        <Button type="submit" variant="contained" disabled={busy}>
          {word}
        </Button>
      </Box>
    </Box>
  );
}
