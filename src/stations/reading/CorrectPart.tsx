'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { Candidate } from '@/core/reading/candidate';
import { lengthsOf, useProject } from '@/project/store';
import { Part } from '@/ui/widgets/Heading';
import { LengthField } from '@/ui/widgets/LengthField';
import { fieldsOf } from './corrections';

/** Puts right what was read of one candidate, and accepts it so. */
export function CorrectPart({ candidate, accept }: { candidate: Candidate; accept: (candidate: Candidate) => void }) {
  const lengths = useProject(lengthsOf);
  const [shape, setShape] = useState(candidate.element);
  const fields = fieldsOf(candidate.kind, shape as never);
  if (fields.length === 0) return null;
  return (
    <Part title="Put right">
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 1, rowGap: 1.75, pt: 0.75, mb: 1 }}>
        {fields.map((field) => (field.kind === 'words'
          ? <TextField key={field.label} size="small" label={field.label} value={field.get(shape as never)} onChange={(event) => setShape(field.set(shape as never, event.target.value))} slotProps={{ htmlInput: { maxLength: 200 } }} />
          : <LengthField key={field.label} label={field.label} value={field.get(shape as never)} lengths={lengths} least={field.least} leastWords="That is too small." width="100%" change={(metres) => setShape(field.set(shape as never, metres))} />))}
      </Box>
      <Button variant="outlined" disabled={shape === candidate.element} onClick={() => accept({ ...candidate, element: shape, asRead: candidate.element } as Candidate)}>Accept it so</Button>
    </Part>
  );
}
