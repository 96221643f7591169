'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { giveMarks, type MarkRule } from '@/core/tracing/chosen';
import { useCommit } from '@/project/useSession';
import { Part } from '@/ui/widgets/Heading';
import { NumberField } from '@/ui/widgets/NumberField';

/** Marks of columns and beams and numbers of zones, by a rule. */
export function MarksPart({ ids }: { ids: readonly string[] }) {
  const commit = useCommit();
  const [rule, setRule] = useState<MarkRule>({ pattern: 'C{n}', first: 1, order: 'rows' });
  return (
    <Part title="Marks by a rule">
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1, pt: 0.5, mb: 1 }}>
        <TextField
          size="small"
          label="Pattern"
          value={rule.pattern}
          onChange={(event) => setRule({ ...rule, pattern: event.target.value })}
          slotProps={{ htmlInput: { maxLength: 40, className: 'mono' } }}
        />
        <NumberField
          label="From"
          value={rule.first}
          least={0}
          most={99_999}
          change={(first) => setRule({ ...rule, first: Math.round(first ?? 1) })}
        />
        <TextField
          select
          size="small"
          label="In the order of"
          value={rule.order}
          sx={{ gridColumn: '1 / -1' }}
          onChange={(event) => setRule({ ...rule, order: event.target.value === 'columns' ? 'columns' : 'rows' })}
        >
          <MenuItem value="rows">rows from the top, each from the left</MenuItem>
          <MenuItem value="columns">columns from the left, each from below</MenuItem>
        </TextField>
      </Box>
      <Button size="small" variant="outlined" onClick={() => void commit((now) => giveMarks(now, ids, rule))}>
        Give marks
      </Button>
    </Part>
  );
}
