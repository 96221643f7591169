'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { TopBar } from '@/ui/shell/TopBar';

/** What stands where a project cannot be shown. */
export function Gone({ message }: { message: string }) {
  return (
    <Box sx={{ minHeight: '100vh', background: 'var(--mui-palette-zf-paper)' }}>
      <TopBar />
      <Box role="alert" sx={{ maxWidth: 520, mx: 'auto', mt: 10, px: 3, fontSize: 15 }}>
        {message}
        <Box sx={{ mt: 2 }}>
          <Button variant="contained" href="/">
            All projects
          </Button>
        </Box>
      </Box>
    </Box>
  );
}
