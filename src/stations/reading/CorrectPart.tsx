'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { Candidate } from '@/core/reading/candidate';
import { kinds } from '@/core/kinds/kinds';
import { useLengths } from '@/project/useSession';
import { Part } from '@/ui/widgets/Heading';
import { LengthField } from '@/ui/widgets/LengthField';
import { commonOf, fieldsOf, putRight } from './corrections';

/** Puts right what was read of one candidate, or of many alike, and accepts them so. */
export function CorrectPart({
  candidates,
  accept,
}: {
  candidates: readonly Candidate[];
  accept: (candidates: Candidate[]) => void;
}) {
  const lengths = useLengths();
  const [changes, setChanges] = useState<ReadonlyMap<string, string | number>>(new Map());
  const [first] = candidates;
  const fields = fieldsOf(first.kind, first.element).filter(({ end }) => !end || candidates.length === 1);
  if (fields.length === 0) return null;
  const set = (label: string, value: string | number) => setChanges(new Map([...changes, [label, value]]));
  const many = candidates.length > 1;
  return (
    <Part title={many ? `Put ${candidates.length} ${kinds[first.kind].names[1]} right` : 'Put right'}>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 1, rowGap: 1.75, pt: 0.75, mb: 1 }}>
        {fields.map((field) => {
          const value = changes.get(field.label) ?? commonOf(candidates, field.label);
          const label = value === null && many ? `${field.label}, various` : field.label;
          if (field.kind === 'choice') {
            return (
              <TextField
                key={field.label}
                select
                size="small"
                label={label}
                value={value ?? ''}
                onChange={(event) => set(field.label, event.target.value)}
              >
                {field.options.map((option) => (
                  <MenuItem key={option} value={option}>
                    {option}
                  </MenuItem>
                ))}
              </TextField>
            );
          }
          return field.kind === 'words' ? (
            <TextField
              key={field.label}
              size="small"
              label={label}
              value={value ?? ''}
              onChange={(event) => set(field.label, event.target.value)}
              slotProps={{ htmlInput: { maxLength: 200 } }}
            />
          ) : (
            <LengthField
              key={field.label}
              label={label}
              value={value as number | null}
              lengths={lengths}
              least={field.least}
              leastWords="That is too small."
              width="100%"
              change={(metres) => set(field.label, metres)}
            />
          );
        })}
      </Box>
      <Button
        variant="outlined"
        disabled={changes.size === 0}
        onClick={() => accept(candidates.map((candidate) => putRight(candidate, changes)))}
      >
        {many ? `Accept ${candidates.length} so` : 'Accept it so'}
      </Button>
    </Part>
  );
}
