'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import type { ElementRow } from '@/core/kinds/element';
import { runAlike, turnRound } from '@/core/tracing/memberAxes';
import { useTracing } from '@/project/tracing';
import { useCommit } from '@/project/useSession';
import { useWorkingAngle } from './useWorkingAngle';
import { Part } from '@/ui/widgets/Heading';

/** Local axes of members and columns: shown on the board, turned round, made alike. */
export function AxesPart({ elements }: { elements: readonly ElementRow[] }) {
  const commit = useCommit();
  const { axesShown, set } = useTracing();
  const angle = useWorkingAngle();
  const members = elements.filter(({ kind }) => kind === 'beam').map(({ id }) => id);
  return (
    <Part title="Local axes">
      <FormControlLabel
        control={
          <Checkbox size="small" checked={axesShown} onChange={({ target }) => set({ axesShown: target.checked })} />
        }
        label="Show them on the board"
      />
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75 }}>
        <Button
          size="small"
          variant="outlined"
          disabled={members.length === 0}
          onClick={() => void commit((now) => turnRound(now, members))}
        >
          Turn round
        </Button>
        <Button
          size="small"
          variant="outlined"
          disabled={members.length === 0}
          onClick={() => void commit((now) => runAlike(now, members, angle))}
        >
          Make alike
        </Button>
      </Box>
      <Box sx={{ color: 'text.secondary', fontSize: 12, mt: 0.75 }}>
        x runs from start to end, y to the left, z upward. Made alike, all run along the axes{'\u2019'} first direction
        or to its left.
      </Box>
    </Part>
  );
}
