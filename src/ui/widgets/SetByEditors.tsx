'use client';
import Box from '@mui/material/Box';
import { ThemeProvider, type Theme } from '@mui/material/styles';
import type { ReactNode } from 'react';
import { useMayEdit } from '@/project/useSession';
import { Note } from './Heading';

const disabled = { disabled: true };
/** What is typed, chosen and pressed, as it is for who may not. */
const fixed = (outer: Theme): Theme => ({
  ...outer,
  components: {
    ...outer.components,
    MuiTextField: { ...outer.components?.MuiTextField, defaultProps: disabled },
    MuiButton: {
      ...outer.components?.MuiButton,
      defaultProps: { ...outer.components?.MuiButton?.defaultProps, ...disabled },
    },
    MuiIconButton: { ...outer.components?.MuiIconButton, defaultProps: disabled },
    MuiCheckbox: { ...outer.components?.MuiCheckbox, defaultProps: disabled },
    MuiSwitch: { ...outer.components?.MuiSwitch, defaultProps: disabled },
    MuiRadio: { ...outer.components?.MuiRadio, defaultProps: disabled },
  },
});

/** No frame of its own; buttons that say of themselves when they can be pressed cannot be either. */
const fieldsetStyle = {
  display: 'contents',
  '& button:disabled': { color: 'var(--mui-palette-action-disabled)' },
} as const;

/** Fields of the project: who may only look sees what they hold, and cannot change them. */
export function SetByEditors({ children }: { children: ReactNode }) {
  if (useMayEdit()) return children;
  return (
    <ThemeProvider theme={fixed}>
      <Note kind="plain">Who may edit this project sets these.</Note>
      <Box component="fieldset" disabled sx={fieldsetStyle}>
        {children}
      </Box>
    </ThemeProvider>
  );
}
