import Box from '@mui/material/Box';
import type { ReactNode } from 'react';

/** A chapter of the report; its head stays with what follows it. */
export function Chapter({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box component="section" aria-label={title} sx={{ mb: 3 }}>
      <Box component="h2" sx={{ fontSize: 17, m: 0, mb: 1, breakAfter: 'avoid' }}>
        {title}
      </Box>
      {children}
    </Box>
  );
}

/** What a trial took for granted. */
export const TakenForGranted = ({ trial, assumed }: { trial: string; assumed: readonly string[] }) => (
  <Chapter title={`${trial}: taken for granted`}>
    <ul>
      {assumed.map((sentence) => (
        <li key={sentence}>{sentence}</li>
      ))}
    </ul>
  </Chapter>
);
