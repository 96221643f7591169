'use client';
import Box from '@mui/material/Box';

/** What was left out: how many of what, why, and what to do. */
export function LeftOut({ lines }: { lines: { kind: string; count: number; reason: string; remedy: string }[] }) {
  return lines.map(({ kind, count, reason, remedy }) => (
    <Box key={kind + reason} sx={{ borderBottom: '1px solid var(--mui-palette-divider)', py: 0.75 }}>
      <b>
        {count.toLocaleString('en')} {kind}
      </b>{' '}
      {'\u2013'} {reason}{' '}
      <Box component="span" sx={{ color: 'text.secondary' }}>
        {remedy}
      </Box>
    </Box>
  ));
}
