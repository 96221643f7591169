'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { mirrorAbout, turnAbout, type Placement } from '@/core/datum/placement';
import type { Point } from '@/core/geometry/vector';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { formatDirection, parseAngle } from '@/core/units/angle';
import { useBoard } from '@/board/boardStore';
import { useSession, useProjectRow } from '@/project/useSession';
import type { Underlay } from '@/project/underlays';
import { Note, Part } from '@/ui/widgets/Heading';
import { placedCentre } from './pick';
import type { Replace } from './useReplace';

const quarter = Math.PI / 2;

/** How the drawing is turned, and whether it is turned over. */
export function TurningPart({
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
  const { tell } = useSession();
  const convention = useProjectRow().angles;
  const { tool, setTool } = useBoard();
  const [text, setText] = useState('');
  const typed = text.trim() === '' ? null : parseAngle(text);
  const mirror = underlay?.mirror;
  // What was put on a point stays there; a drawing as drawn turns about its middle, which may be far from its zero.
  const about = (): Point =>
    Math.hypot(...placement.origin) + Math.hypot(...placement.target) > 0 || !underlay
      ? placement.target
      : (placedCentre(placement, underlay) ?? placement.target);
  const set = (next: Placement, label: string) => replace({ ...placement, ...next } as PlacementRow, label);
  const turn = (by: number, words: string) => set(turnAbout(placement, about(), by), `${drawing.name} turned ${words}`);
  const axis = (towards: number, name: string) =>
    setTool({
      kind: 'pickLine',
      prompt: `line to run along ${name}`,
      take: ({ from, to, drawingId, words }) => {
        if (drawingId !== drawing.id) {
          tell({
            kind: 'problem',
            text: `That line (${words}) belongs to another drawing. Pick one of ${drawing.name}.`,
          });
          return;
        }
        const now = Math.atan2(to[1] - from[1], to[0] - from[0]);
        // A line has no direction: it is turned the shorter way.
        const by = towards - now - Math.PI * Math.round((towards - now) / Math.PI);
        set(turnAbout(placement, from, by), `${words} of ${drawing.name} along ${name}`);
      },
    });
  const reversed = mirror?.verdict === true && !placement.mirrored;
  return (
    <Part title="Turning">
      {reversed && (
        <Note kind="look">
          <b>The drawing shows its plan mirror-wise:</b> {mirror.mirrored} of {mirror.texts} texts read backwards.{' '}
          <Button variant="text" onClick={() => set(mirrorAbout(placement, about()), `${drawing.name} turned over`)}>
            Turn it over
          </Button>
        </Note>
      )}
      <Box sx={{ mb: 1 }}>
        {Math.abs(placement.turning) < 1e-12 ? (
          'As drawn'
        ) : (
          <>
            Its x runs at <span className="mono">{formatDirection(placement.turning, convention, 3)}</span>
          </>
        )}
        {placement.mirrored ? ', turned over' : ''}.
      </Box>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mb: 1 }}>
        <Button variant="outlined" onClick={() => turn(quarter, 'a quarter to the left')}>
          Quarter left
        </Button>
        <Button variant="outlined" onClick={() => turn(-quarter, 'a quarter to the right')}>
          Quarter right
        </Button>
        <Button variant="outlined" onClick={() => set(mirrorAbout(placement, about()), `${drawing.name} turned over`)}>
          Turn over
        </Button>
        {(Math.abs(placement.turning) > 1e-12 || placement.mirrored) && (
          <Button
            variant="text"
            onClick={() => replace({ ...placement, turning: 0, mirrored: false }, `${drawing.name} not turned`)}
          >
            As drawn
          </Button>
        )}
      </Box>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mb: 1 }}>
        {tool.kind === 'pickLine' ? (
          <Button variant="outlined" onClick={() => setTool({ kind: 'look' })}>
            Stop picking
          </Button>
        ) : (
          <>
            <Button variant="outlined" onClick={() => axis(0, 'east')}>
              Pick a line for east
            </Button>
            <Button variant="outlined" onClick={() => axis(quarter, 'north')}>
              for north
            </Button>
          </>
        )}
      </Box>
      <Box
        component="form"
        sx={{ display: 'flex', gap: 1, alignItems: 'flex-start' }}
        onSubmit={(event) => {
          event.preventDefault();
          if (typed?.ok) {
            turn(typed.value, `by ${text.trim()}`);
            setText('');
          }
        }}
      >
        <TextField
          size="small"
          label="Turn by"
          placeholder={'17 or 12\u00b0 30\u2032'}
          value={text}
          error={typed !== null && !typed.ok}
          helperText={typed !== null && !typed.ok ? typed.message : null}
          onChange={(event) => setText(event.target.value)}
          sx={{ width: typed !== null && !typed.ok ? '100%' : 148 }}
        />
        <Button type="submit" variant="outlined" disabled={!typed?.ok}>
          Turn
        </Button>
      </Box>
    </Part>
  );
}
