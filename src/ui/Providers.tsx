'use client';
import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import { SnackbarProvider } from 'notistack';
import { createContext, use, useState, type ReactNode } from 'react';
import { theme } from './theme';

const Nonce = createContext<string | undefined>(undefined);

/** The nonce that styles made at run time need under the content security policy. */
export const useNonce = () => use(Nonce);

export function Providers({ nonce: given, children }: { nonce: string | undefined; children: ReactNode }) {
  // A refresh brings the nonce of a later request; the document keeps to the one it came with.
  const [nonce] = useState(given);
  return (
    <Nonce value={nonce}>
      <ThemeProvider theme={theme} defaultMode="system">
        <CssBaseline />
        <SnackbarProvider
          maxSnack={4}
          autoHideDuration={7000}
          anchorOrigin={{ vertical: 'bottom', horizontal: 'center' }}
          classes={{ root: 'zf-snack', containerRoot: 'zf-snacks' }}
        >
          {children}
        </SnackbarProvider>
      </ThemeProvider>
    </Nonce>
  );
}
