'use client';
import { heldWords } from '@/core/model/drawings';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { mainContent } from '@/core/underlay/mainContent';
import { fromOtherSide, type Placement } from '@/core/datum/placement';
import { put } from '@/core/model/edits';
import { levelsUp } from '@/core/model/levels';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { formatDirection } from '@/core/units/angle';
import { formatLength, formatNumber } from '@/core/units/length';
import { useModel, useCommit, useSession, useLengths, useProjectRow } from '@/project/useSession';
import { heightsIn, type Underlay } from '@/project/underlays';
import { useView } from '@/project/view';
import { Part } from '@/ui/widgets/Heading';
import { LengthField } from '@/ui/widgets/LengthField';
import { pickPoint } from './pick';
import type { Replace } from './useReplace';

/** Whether the drawing is a plan, and on which levels, or stands upright on a line of the plan. */
export function PlanePart({
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
  const upright = placement.upright !== null;
  const state = useModel('level', 'display');
  const commit = useCommit();
  const view = useView((v) => v.set);
  const stand = async () => {
    const main = underlay && mainContent(underlay.primitives);
    if (!main) return;
    // What is written in it says where its zero is; else it stands with its lowest point at zero.
    const heights = await heightsIn(drawing.id).catch(() => null);
    const zero = heights?.ok ? heights.value.zero : null;
    replace(
      { ...placement, origin: [main[0][0], zero ?? main[0][1]], target: [0, 0], turning: 0, upright: 0 },
      `${drawing.name} stands upright`,
    );
    view({ faceOn: drawing.id });
  };
  const lay = () => {
    replace({ ...placement, origin: [0, 0], target: [0, 0], turning: 0, upright: null }, `${drawing.name} is a plan`);
    view({ faceOn: null });
  };
  return (
    <Part title="Plane">
      <Select
        size="small"
        fullWidth
        value={upright ? 'upright' : 'plan'}
        inputProps={{ 'aria-label': 'Plane of the drawing' }}
        onChange={(event) => {
          if (event.target.value === 'upright') void stand();
          else lay();
        }}
        sx={{ mb: 1 }}
      >
        <MenuItem value="plan">a plan, at its levels</MenuItem>
        <MenuItem value="upright">a section or an elevation, upright on a line</MenuItem>
      </Select>
      {upright ? (
        <Standing drawing={drawing} placement={placement} replace={replace} />
      ) : (
        <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1 }}>
          <Select
            size="small"
            fullWidth
            displayEmpty
            value={drawing.levelId ?? ''}
            inputProps={{ 'aria-label': 'Level of the drawing' }}
            onChange={(event) =>
              void commit((now) => {
                const levelId = event.target.value || null;
                return {
                  label: `${drawing.name} at ${levelId ? now.level[levelId].name : 'no level'}`,
                  changes: [
                    put('drawing', {
                      ...now.drawing[drawing.id],
                      levelId,
                      alsoOn: now.drawing[drawing.id].alsoOn.filter((id) => id !== levelId),
                    }),
                  ],
                };
              })
            }
          >
            <MenuItem value="">No level yet</MenuItem>
            {levelsUp(state).map((level) => (
              <MenuItem key={level.id} value={level.id}>
                {level.name}
              </MenuItem>
            ))}
          </Select>
          <Select
            size="small"
            fullWidth
            displayEmpty
            multiple
            value={drawing.alsoOn}
            inputProps={{ 'aria-label': 'Further levels of the drawing' }}
            renderValue={(ids) =>
              ids.length === 0
                ? 'on no further level'
                : `also on ${ids
                    .map((id) => state.level[id]?.name)
                    .filter(Boolean)
                    .join(', ')}`
            }
            onChange={(event) =>
              void commit((now) => {
                const alsoOn = [event.target.value].flat();
                return {
                  label: `${drawing.name} also on ${alsoOn.map((id) => now.level[id]?.name).join(', ') || 'no other level'}`,
                  changes: [put('drawing', { ...now.drawing[drawing.id], alsoOn })],
                };
              })
            }
          >
            {levelsUp(state)
              .filter(({ id }) => id !== drawing.levelId)
              .map((level) => (
                <MenuItem key={level.id} value={level.id}>
                  {level.name}
                </MenuItem>
              ))}
          </Select>
          <Box sx={{ color: 'text.secondary' }}>
            Elements read from it belong to the first; on the others it is shown.
          </Box>
        </Box>
      )}
    </Part>
  );
}

/** The line that a section stands on, and which of its points stands where. */
function Standing({ drawing, placement, replace }: { drawing: DrawingRow; placement: PlacementRow; replace: Replace }) {
  const lengths = useLengths();
  const session = useSession();
  const { tell } = session;
  const convention = useProjectRow().angles;
  const held = heldWords(useModel('display'), drawing);
  const { faceOn, set } = useView();
  const facing = faceOn === drawing.id;
  const turn = (on: boolean) => set({ faceOn: on ? drawing.id : null });
  const set_ = (next: Partial<Placement>, label: string) => replace({ ...placement, ...next } as PlacementRow, label);
  const line = () => {
    if (held !== null) {
      tell({ kind: 'problem', text: held });
      return;
    }
    turn(false);
    pickPoint(session, 'start of its line in the plan', null, (first) =>
      pickPoint(session, 'end of its line', null, (second) => {
        const [dx, dy] = [second.point[0] - first.point[0], second.point[1] - first.point[1]];
        if (Math.hypot(dx, dy) < 0.001) {
          tell({
            kind: 'problem',
            text: 'Both ends were picked at one point; a line needs two points apart. Pick the line again.',
          });
          return;
        }
        set_(
          { target: [first.point[0], first.point[1]], turning: Math.atan2(dy, dx) },
          `${drawing.name} stands on the line from ${first.words}`,
        );
      }),
    );
  };
  const start = () => {
    turn(true);
    pickPoint(session, 'point above the line\u2019s start', drawing.id, (picked) => {
      // The point's own height stays what it is.
      const elevation = picked.point[1];
      set_(
        { origin: [picked.drawingPoint[0], picked.drawingPoint[1]], upright: elevation },
        `${picked.words} of ${drawing.name} above the line\u2019s start`,
      );
    });
  };
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1, alignItems: 'flex-start' }}>
      <Box>
        It stands on the line from{' '}
        <span className="mono">
          E {formatLength(placement.target[0], lengths)}, N {formatLength(placement.target[1], lengths)}
        </span>{' '}
        at <span className="mono">{formatDirection(placement.turning, convention, 2)}</span>.
      </Box>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <Button variant={facing ? 'contained' : 'outlined'} aria-pressed={facing} onClick={() => turn(!facing)}>
          {facing ? 'Back to the plan' : 'Look at it face on'}
        </Button>
        <Button variant="outlined" onClick={line}>
          Pick its line
        </Button>
        <Button variant="outlined" onClick={start}>
          Pick what stands at its start
        </Button>
        <Button
          variant="outlined"
          title="An elevation shows the building from outside: where it runs against its line, it was seen from behind."
          onClick={() =>
            replace(fromOtherSide(placement as Placement) as PlacementRow, `${drawing.name} seen from the other side`)
          }
        >
          Seen from the other side
        </Button>
      </Box>
      <Box>
        Its point{' '}
        <span className="mono">
          {formatNumber(placement.origin[0], 0)}, {formatNumber(placement.origin[1], 0)}
        </span>{' '}
        ({placement.unit}) stands above the start.
      </Box>
      <LengthField
        label="At elevation"
        value={placement.upright}
        lengths={lengths}
        change={(upright) => set_({ upright }, `${drawing.name} at ${formatLength(upright, lengths)}`)}
      />
    </Box>
  );
}
