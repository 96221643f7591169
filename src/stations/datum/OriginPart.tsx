'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { useState } from 'react';
import { place, putOn, unplace } from '@/core/datum/placement';
import type { Point } from '@/core/geometry/vector';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { formatLength, formatNumber } from '@/core/units/length';
import { useBoard } from '@/board/boardStore';
import { useSession, useLengths } from '@/project/useSession';
import type { Underlay } from '@/project/underlays';
import { Part } from '@/ui/widgets/Heading';
import { LengthField } from '@/ui/widgets/LengthField';
import { pickPoint, placedCentre } from './pick';
import { useCrossings } from './useCrossings';
import type { Replace } from './useReplace';

interface Chosen {
  drawn: Point;
  words: string;
}

/** Which point of the drawing stands on which point of the project. */
export function OriginPart({
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
  const picking = useBoard((board) => board.tool.kind === 'pick');
  const [point, setPoint] = useState<Chosen | null>(null);
  const [target, setTarget] = useState<Point>([0, 0]);
  const [opened, setOpened] = useState(false);
  const found = useCrossings(drawing, placement, underlay, opened);
  const crossings = typeof found === 'string' ? [] : found;
  const zero = unplace(placement, [0, 0]);
  const plain = Math.hypot(...zero) < 1e-9;
  const centre = () => {
    const middle = underlay && placedCentre(placement, underlay);
    if (middle)
      replace(
        { ...placement, ...putOn(placement, unplace(placement, middle), [0, 0]) } as PlacementRow,
        `Zero of ${drawing.name} in the middle of its content`,
      );
  };
  const put = ({ drawn, words }: Chosen, to: Point, where: string) => {
    replace(
      { ...placement, ...putOn(placement, drawn, to) } as PlacementRow,
      `${words} of ${drawing.name} on ${where}`,
    );
    setPoint(null);
  };
  const where = (p: Point) =>
    Math.hypot(...p) < 1e-9 ? 'the zero' : `E ${formatLength(p[0], lengths)}, N ${formatLength(p[1], lengths)}`;
  return (
    <Part title="Origin">
      <Box sx={{ mb: 1 }}>
        {plain ? (
          'As drawn: the drawing\u2019s zero is the project\u2019s.'
        ) : (
          <>
            The project{'\u2019'}s zero is the drawing{'\u2019'}s point{' '}
            <Box component="span" className="mono">
              {formatNumber(zero[0], 2)}, {formatNumber(zero[1], 2)}
            </Box>{' '}
            ({placement.unit}).
          </>
        )}
      </Box>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        {picking ? (
          <Button variant="outlined" onClick={() => useBoard.getState().setTool({ kind: 'look' })}>
            Stop picking
          </Button>
        ) : (
          <Button
            variant="outlined"
            onClick={() =>
              pickPoint(session, 'point to be the zero', drawing.id, (picked) =>
                put({ drawn: picked.drawingPoint, words: picked.words }, [0, 0], 'the zero'),
              )
            }
          >
            Pick the zero
          </Button>
        )}
        <Button variant="outlined" disabled={!underlay} onClick={centre}>
          Centre of content
        </Button>
        {!plain && (
          <Button
            variant="text"
            onClick={() => replace({ ...placement, origin: [0, 0], target: [0, 0] }, `${drawing.name} as drawn`)}
          >
            As drawn
          </Button>
        )}
      </Box>
      <Box sx={{ mt: 1.5, borderTop: '1px solid var(--mui-palette-divider)', pt: 1 }}>
        <Box sx={{ color: 'text.secondary', mb: 0.75 }}>A point to a place of its own</Box>
        <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', mb: 1 }}>
          <Select
            size="small"
            displayEmpty
            value={crossings?.some(({ name }) => name === point?.words) ? point!.words : ''}
            inputProps={{ 'aria-label': 'Grid crossing of the drawing' }}
            sx={{ width: 148 }}
            onOpen={() => setOpened(true)}
            onClose={() => setOpened(false)}
            renderValue={(value) => (value === '' ? (point?.words ?? 'Grid crossing') : value)}
            onChange={(event) => {
              const chosen = crossings?.find(({ name }) => name === event.target.value);
              if (chosen) setPoint({ drawn: chosen.drawn, words: chosen.name });
            }}
          >
            {crossings === null && (
              <MenuItem disabled value="">
                reading its grid {'\u2026'}
              </MenuItem>
            )}
            {crossings?.length === 0 && (
              <MenuItem disabled value="">
                {typeof found === 'string' ? found : 'no crossings; give its grid layer the role at Sorting'}
              </MenuItem>
            )}
            {crossings?.map(({ name }) => (
              <MenuItem key={name} value={name}>
                {name}
              </MenuItem>
            ))}
          </Select>
          <Button
            variant="text"
            onClick={() =>
              pickPoint(session, 'point of the drawing', drawing.id, (picked) =>
                setPoint({ drawn: picked.drawingPoint, words: picked.words }),
              )
            }
          >
            or pick it
          </Button>
        </Box>
        {point && (
          <>
            <Box sx={{ display: 'flex', gap: 1, alignItems: 'flex-start', flexWrap: 'wrap', pt: 0.75 }}>
              <LengthField
                label="East"
                value={target[0]}
                lengths={lengths}
                change={(east) => setTarget([east, target[1]])}
                width={116}
              />
              <LengthField
                label="North"
                value={target[1]}
                lengths={lengths}
                change={(north) => setTarget([target[0], north])}
                width={116}
              />
              <Button
                variant="text"
                onClick={() =>
                  pickPoint(session, 'place in the project', null, (picked) =>
                    setTarget([picked.point[0], picked.point[1]]),
                  )
                }
              >
                or pick it
              </Button>
            </Box>
            <Box sx={{ my: 1 }}>
              {point.words} now stands at {where(place(placement, point.drawn))}.
            </Box>
            <Box sx={{ display: 'flex', gap: 1 }}>
              <Button variant="contained" onClick={() => put(point, target, where(target))}>
                Apply
              </Button>
              <Button variant="text" onClick={() => setPoint(null)}>
                Cancel
              </Button>
            </Box>
          </>
        )}
      </Box>
    </Part>
  );
}
