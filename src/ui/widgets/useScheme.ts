'use client';
import { useColorScheme } from '@mui/material/styles';
import { tokensOf, type Tokens } from '@/ui/tokens';

/** The scheme in force and its colours; `toggle` changes to the other. */
export function useScheme(): { dark: boolean; tokens: Tokens; toggle: () => void } {
  const { mode, systemMode, setMode } = useColorScheme();
  const scheme = mode === 'system' ? systemMode : mode;
  return {
    dark: scheme === 'dark',
    tokens: tokensOf(scheme),
    toggle: () => setMode(scheme === 'dark' ? 'light' : 'dark'),
  };
}
