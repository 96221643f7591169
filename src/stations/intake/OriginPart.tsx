'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { Origin } from '@/core/handover/intake/origin';
import { api } from '@/project/api';
import { keyOf, useAnswer, valueOf } from '@/project/useAnswer';
import { CutPart } from './CutPart';
import { useSession } from '@/project/useSession';
import { Part } from '@/ui/widgets/Heading';

/** What a drawing was made of: a file, by the office's converter, or a building, by a cut through it. */
export function OriginPart({ fileId }: { fileId: string }) {
  const { id } = useSession();
  const address = `/api/projects/${id}/files/${fileId}`;
  const answer = useAnswer(keyOf(id, fileId), () => api<{ origin: Origin | null }>(`${address}/origin`));
  const origin = valueOf(answer)?.origin ?? null;
  if (origin === null) return null;
  return (
    <Part
      title={origin.report === null ? 'Made by the office\u2019s converter' : 'Cut through a building'}
      aside={
        <Button variant="text" href={`${address}/original`} download>
          Save the original
        </Button>
      }
    >
      <Box sx={{ color: 'text.secondary', overflowWrap: 'anywhere' }}>
        Of {origin.name}, {origin.size.toLocaleString('en')} bytes.
        {origin.report === null && ' What it left out only its own words tell:'}
      </Box>
      {origin.report === null ? (
        <Box
          component="pre"
          tabIndex={0}
          aria-label="What the converter said"
          sx={{ m: 0, mt: 0.5, maxHeight: 160, overflow: 'auto', fontSize: 12, whiteSpace: 'pre-wrap' }}
        >
          {origin.log.trim() === '' ? 'nothing' : origin.log}
        </Box>
      ) : (
        <CutPart report={origin.report} />
      )}
    </Part>
  );
}
