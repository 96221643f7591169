import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';

/** The head of a bench. */
export function BenchHead({ title, about }: { title: string; about: ReactNode }) {
  return (
    <Box sx={{ mb: 1.5 }}>
      <Typography variant="h1">{title}</Typography>
      <Typography component="div" color="text.secondary" sx={{ overflowWrap: 'anywhere' }}>
        {about}
      </Typography>
    </Box>
  );
}

/** A part of a bench under a small heading. */
export function Part({ title, aside, children }: { title: string; aside?: ReactNode; children: ReactNode }) {
  return (
    <Box component="section" sx={{ mb: 2.25 }}>
      <Box
        sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', gap: 1, mb: 0.5, minHeight: 24 }}
      >
        <Typography variant="h2" component="h2" color="text.secondary">
          {title}
        </Typography>
        {aside}
      </Box>
      {children}
    </Box>
  );
}

/** A note that stands out: something to look at, or something wrong. */
export function Note({ kind, children }: { kind: 'look' | 'wrong' | 'plain'; children: ReactNode }) {
  let colour;
  if (kind === 'look') colour = 'var(--mui-palette-zf-amber)';
  else if (kind === 'wrong') colour = 'var(--mui-palette-zf-clay)';
  else colour = 'var(--mui-palette-divider)';

  return (
    <Box
      role={kind === 'wrong' ? 'alert' : 'note'}
      sx={{
        borderLeft: `3px solid ${colour}`,
        background: kind === 'look' ? 'var(--mui-palette-zf-amberSoft)' : 'var(--mui-palette-zf-paper)',
        px: 1.5,
        py: 1,
        mb: 1.5,
        borderRadius: '0 5px 5px 0',
        overflowWrap: 'anywhere',
      }}
    >
      {children}
    </Box>
  );
}
