'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';

/** A link that is given to somebody: shown once, to be copied. @param path of this server */
export function LinkBox({ path, about }: { path: string; about: string }) {
  const link = `${window.location.origin}${path}`;
  const [copied, setCopied] = useState(false);
  // Elsewhere browsers give no clipboard; a click selects the link.
  const canCopy = window.isSecureContext;
  return (
    <Box role="status" sx={{ my: 1.5, p: 1.5, border: '1px solid var(--mui-palette-divider)', borderRadius: '5px' }}>
      <Box sx={{ mb: 1 }}>{about} It is shown only here, and works once.</Box>
      <Box sx={{ display: 'flex', gap: 1 }}>
        <TextField
          size="small"
          label="Link"
          value={link}
          fullWidth
          slotProps={{ htmlInput: { readOnly: true } }}
          onFocus={({ target }) => target.select()}
        />
        {canCopy && (
          <Button
            variant="outlined"
            onClick={() => void navigator.clipboard.writeText(link).then(() => setCopied(true))}
          >
            {copied ? 'Copied' : 'Copy'}
          </Button>
        )}
      </Box>
    </Box>
  );
}
