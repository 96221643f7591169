'use client';
import { unitLabel } from '@/core/model/drawings';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { knownLength, knownWords } from '@/core/datum/knownLength';
import { distance } from '@/core/geometry/vector';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { formatNumber } from '@/core/units/length';
import { useBoard, type Picked } from '@/board/boardStore';
import { valueOf } from '@/project/useAnswer';
import { useSession, useLengths } from '@/project/useSession';
import type { Underlay } from '@/project/underlays';
import { Note, Part } from '@/ui/widgets/Heading';
import { LengthField } from '@/ui/widgets/LengthField';
import { pickPoint } from './pick';
import type { Replace } from './useReplace';
import { useVerdict } from './useVerdict';

/**
 * A length that somebody knows, between two points of the drawing: it overrides the evidence, and is held against it.
 */
export function KnownLengthPart({
  drawing,
  placement,
  underlay,
  replace,
}: {
  drawing: DrawingRow;
  placement: PlacementRow;
  underlay: Underlay | null;
  replace: Replace;
}) {
  const lengths = useLengths();
  const session = useSession();
  const verdict = valueOf(useVerdict(drawing.id, underlay));
  const picking = useBoard((board) => board.tool.kind === 'pick');
  const [ends, setEnds] = useState<[Picked, Picked] | null>(null);
  const [metres, setMetres] = useState<number | null>(null);
  const drawn = ends && distance(ends[0].drawingPoint, ends[1].drawingPoint);
  // Two points on one another are refused before a length is asked for.
  let found;
  if (drawn === null) found = null;
  else if (metres !== null) found = knownLength(drawn, metres, verdict);
  else if (drawn > 0) found = null;
  else found = knownLength(drawn, 1, null);

  const pick = () => {
    setEnds(null);
    setMetres(null);
    pickPoint(session, 'first end of the known length', drawing.id, (first) =>
      pickPoint(session, 'second end', drawing.id, (second) => setEnds([first, second])),
    );
  };
  const take = (unit: PlacementRow['unit'], scale: number) => {
    const next = { ...placement, unit, scale, confirmed: true };
    setEnds(null);
    replace(next, `${unitLabel(drawing, next)}, by a known length`);
  };
  return (
    <Part title="Known length">
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', mb: 1 }}>
        {picking ? (
          <Button variant="outlined" onClick={() => useBoard.getState().setTool({ kind: 'look' })}>
            Stop picking
          </Button>
        ) : (
          <Button variant="outlined" onClick={pick}>
            Pick its two ends
          </Button>
        )}
        {drawn !== null && (
          <span>
            <span className="mono">{formatNumber(drawn, 2)}</span> drawing units
          </span>
        )}
      </Box>
      {drawn !== null && drawn > 0 && (
        <Box sx={{ mb: 1 }}>
          <LengthField label="True length" value={metres} lengths={lengths} change={setMetres} width={160} />
        </Box>
      )}
      {found !== null && !found.ok && <Note kind="look">{found.message}</Note>}
      {found?.ok && (
        <Box role="group" aria-label="What the known length says">
          <Note kind={found.value.against.length > 0 ? 'look' : 'plain'}>
            {knownWords(found.value)}
            {found.value.against.length > 0 && <> But then this is true: {found.value.against.join(', ')}.</>}
          </Note>
          <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
            <Button variant="contained" onClick={() => take(found.value.unit, found.value.scale)}>
              Apply
            </Button>
            {Math.abs(found.value.off) > 5e-4 && (
              <Button
                variant="outlined"
                onClick={() => take(found.value.unit, found.value.scale * (1 + found.value.off))}
              >
                Take the length to the letter
              </Button>
            )}
            <Button variant="text" onClick={() => setEnds(null)}>
              Cancel
            </Button>
          </Box>
        </Box>
      )}
    </Part>
  );
}
