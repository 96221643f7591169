'use client';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { keyOf } from '@/project/keys';
import { snapGroups, useTracing } from '@/project/tracing';
import { NumberField } from '@/ui/widgets/NumberField';
import { Part } from '@/ui/widgets/Heading';
import { snapWords } from './words';

/** What the cursor holds on to, and from how far. */
export function HoldPart() {
  const { off, reach, set } = useTracing();
  return (
    <Part title="The cursor holds on to">
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr' }}>
        {snapGroups.map((group) => (
          <FormControlLabel
            key={group}
            control={
              <Checkbox
                size="small"
                checked={!off.includes(group)}
                onChange={(_, on) => set({ off: on ? off.filter((other) => other !== group) : [...off, group] })}
              />
            }
            label={snapWords[group]}
            sx={{ '& .MuiFormControlLabel-label': { fontSize: 13 }, minHeight: 28, mr: 0 }}
          />
        ))}
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, mt: 1 }}>
        <NumberField
          label="From, pixels"
          value={reach}
          least={2}
          most={60}
          width={110}
          change={(next) => set({ reach: Math.round(next ?? 12) })}
        />
        <Box sx={{ color: 'text.secondary', fontSize: 12 }}>
          {keyOf('nextHold').toUpperCase()} steps through them, {keyOf('loupe').toUpperCase()} opens the loupe, Shift
          locks the direction
        </Box>
      </Box>
    </Part>
  );
}
