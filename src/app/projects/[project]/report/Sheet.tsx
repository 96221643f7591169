'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { ReactNode } from 'react';

interface SheetProps {
  project: string;
  title: string;
  /** When and of what it was made. */
  about: ReactNode;
  /** Buttons beside the one that prints. */
  acts?: ReactNode;
  children: ReactNode;
}

/** A page that prints well: its title, the way back, and what it says in chapters. */
export function Sheet({ project, title, about, acts, children }: SheetProps) {
  return (
    <Box component="main" sx={paper}>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 2 }}>
        <Box component="h1" sx={{ m: 0, fontSize: 24, flex: 1, overflowWrap: 'anywhere' }}>
          {title}
        </Box>
        <Box sx={{ display: 'flex', gap: 1, flexShrink: 0, '@media print': { display: 'none' } }}>
          <Button variant="outlined" href={`/projects/${project}`}>
            Back to the project
          </Button>
          {acts}
          <Button variant="contained" onClick={() => window.print()}>
            Print
          </Button>
        </Box>
      </Box>
      <Box sx={{ color: 'text.secondary', mb: 2 }}>{about}</Box>
      {children}
    </Box>
  );
}

const paper = {
  maxWidth: 980,
  mx: 'auto',
  p: 4,
  minHeight: '100vh',
  background: 'var(--mui-palette-zf-panel)',
  fontSize: 13,
  '& tr': { breakInside: 'avoid' },
  '@media print': { p: 0, maxWidth: 'none', background: 'none' },
} as const;
