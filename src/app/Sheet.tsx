'use client';
import Box from '@mui/material/Box';
import type { ReactNode } from 'react';
import { TopBar } from '@/ui/shell/TopBar';

/** A page with little on it: its title, and what is done there. */
export function Sheet({ title, wide = false, children }: { title: string; wide?: boolean; children: ReactNode }) {
  return (
    <Box sx={{ minHeight: '100vh', background: 'var(--mui-palette-zf-paper)' }}>
      <TopBar />
      <Box component="main" sx={{ maxWidth: wide ? 720 : 380, mx: 'auto', px: 3, py: wide ? 5 : 10 }}>
        <Box component="h1" sx={{ m: 0, mb: 2, fontSize: 19, fontWeight: 700 }}>
          {title}
        </Box>
        {children}
      </Box>
    </Box>
  );
}
