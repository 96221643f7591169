'use client';
import Box from '@mui/material/Box';
import { api } from '@/project/api';
import { loadAnew } from '@/project/loadAnew';
import { CredentialsForm } from '../CredentialsForm';
import { Sheet } from '../Sheet';

/** Where one signs in. Everything of a page is loaded anew afterwards: nothing of who was here before stays. */
export function SignIn() {
  const send = async (name: string, password: string): Promise<void> => {
    await api('/api/sign-in', { json: { name, password } });
    loadAnew('/');
  };
  return (
    <Sheet title="Sign in">
      <CredentialsForm named fresh={false} word="Sign in" send={send} />
      <Box sx={{ color: 'text.secondary', mt: 2 }}>
        No account, or the password is forgotten? The owner of this installation gives you a link.
      </Box>
    </Sheet>
  );
}
