'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { ReadKind } from '@/core/kinds/element';
import { kinds } from '@/core/kinds/kinds';
import { useBoard } from '@/board/boardStore';
import { keyOf } from '@/project/keys';
import { Part } from '@/ui/widgets/Heading';

/** Takes what the lines under the cursor read as, whatever their layer. */
export function TakePart({ kind }: { kind: ReadKind }) {
  const { tool, setTool } = useBoard();
  const taking = tool.kind === 'take' && tool.of === kind;
  const [one, many] = kinds[kind].names;
  return (
    <Part title="From the drawing">
      <Button
        size="small"
        variant={taking ? 'contained' : 'outlined'}
        aria-pressed={taking}
        onClick={() => setTool(taking ? { kind: 'look' } : { kind: 'take', of: kind })}
      >
        {`Take ${many} by a click`}
      </Button>
      <Box sx={{ color: 'text.secondary', fontSize: 12, mt: 0.75 }}>
        The cursor shows what {one} its lines would become. A click takes it, a drag all of its like in a box;{' '}
        {keyOf('otherReading').toUpperCase()} steps through other readings.
      </Box>
    </Part>
  );
}
