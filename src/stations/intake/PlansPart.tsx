'use client';
import { cutOut } from '@/core/model/drawings';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import { unplace, type Placement } from '@/core/datum/placement';
import { put } from '@/core/model/edits';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import type { Box as PlanBox } from '@/core/underlay/mainContent';
import { useBoard } from '@/board/boardStore';
import { useOverlay } from '@/project/overlay';
import { keyOf, useAnswer } from '@/project/useAnswer';
import { useCommit } from '@/project/useSession';
import { plansOnSheet, type Underlay } from '@/project/underlays';
import { useView } from '@/project/view';
import { Note, Part } from '@/ui/widgets/Heading';
import { LinePicture } from '@/ui/widgets/LinePicture';
import { count } from './format';

type Polygon = [number, number][];

const cornersOf = ([[x0, y0], [x1, y1]]: PlanBox, margin: number): Polygon => [
  [x0 - margin, y0 - margin],
  [x1 + margin, y0 - margin],
  [x1 + margin, y1 + margin],
  [x0 - margin, y1 + margin],
];

/** A region keeps a little more than a plan's box, so that its outermost lines are well inside. */
const marginOf = ([[x0, y0], [x1, y1]]: PlanBox) => Math.max(x1 - x0, y1 - y0) * 0.002;

/** Plans found on a sheet, each to become a drawing of its own; or a region drawn by hand. */
export function PlansPart({
  drawing,
  placement,
  underlay,
}: {
  drawing: DrawingRow;
  placement: PlacementRow;
  underlay: Underlay | null;
}) {
  const commit = useCommit();
  const { tool, setTool } = useBoard();
  const outlining = tool.kind === 'outline';
  const setView = useView((view) => view.set);
  const show = useOverlay((store) => store.show);
  const answer = useAnswer(keyOf(drawing.id, underlay?.basis), () => plansOnSheet(drawing.id));
  const [names, setNames] = useState<Record<number, string>>({});
  const [region, setRegion] = useState<Polygon | null>(null);
  const [regionName, setRegionName] = useState('');
  useEffect(() => () => show(null), [show]);

  if (underlay === null || answer === null)
    return (
      <Box role="status" sx={{ color: 'text.secondary' }}>
        looking for plans {'\u2026'}
      </Box>
    );
  if (!answer.ok) return <Note kind="wrong">{answer.message}</Note>;
  const plans = answer.value;
  const nameOf = (i: number) =>
    names[i] ?? (titleOf(underlay, plans[i].box) || `${drawing.name} ${i + 1}`).slice(0, 120);
  const outline = (polygon: Polygon | null) =>
    show(
      polygon && {
        drawingId: drawing.id,
        origin: polygon[0],
        parts: [
          {
            tone: 'evidence',
            lines: Float32Array.from(
              polygon.flatMap(([x, y], i) => {
                const [nx, ny] = polygon[(i + 1) % polygon.length];
                const [ox, oy] = polygon[0];
                return [x - ox, y - oy, nx - ox, ny - oy];
              }),
            ),
          },
        ],
      },
    );
  const cut = (which: number[]) =>
    void commit((state) => {
      const edits = which.map((i) =>
        cutOut(
          state,
          state.drawing[drawing.id],
          nameOf(i).trim() || `${drawing.name} ${i + 1}`,
          cornersOf(plans[i].box, marginOf(plans[i].box)),
          () => crypto.randomUUID(),
        ),
      );
      if (edits.length === 1) return edits[0];
      // With all its plans taken, the sheet itself is only in the way.
      return {
        label: `Cut ${edits.length} plans out of ${drawing.name}`,
        changes: [
          ...edits.flatMap((edit) => edit.changes),
          put('drawing', { ...state.drawing[drawing.id], setAside: true }),
        ],
      };
    }).then((done) => {
      if (done) show(null);
    });
  const drawRegion = () =>
    setTool({
      kind: 'outline',
      prompt: 'corner of the plan',
      take: (corners) => {
        const polygon = corners.map((p): [number, number] => {
          const [x, y] = unplace(placement as Placement, p);
          return [x, y];
        });
        setRegion(polygon);
        outline(polygon);
      },
    });
  const cutRegion = () => {
    if (region === null) return;
    void commit((state) =>
      cutOut(state, state.drawing[drawing.id], regionName.trim() || `${drawing.name}, part`, region, () =>
        crypto.randomUUID(),
      ),
    ).then((done) => {
      if (done) {
        setRegion(null);
        setRegionName('');
        show(null);
      }
    });
  };

  return (
    <>
      <Part
        title={plans.length < 2 ? 'One plan on this sheet' : `${plans.length} plans found on this sheet`}
        aside={
          plans.length > 1 && (
            <Button variant="contained" onClick={() => cut(plans.map((_, i) => i))}>
              Create {plans.length} drawings
            </Button>
          )
        }
      >
        {plans.length < 2 && (
          <Box sx={{ color: 'text.secondary' }}>
            Nothing else stands apart from it. A part can be cut out by hand below.
          </Box>
        )}
        {plans.length > 1 && (
          <Box component="ul" aria-label="Plans on this sheet" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {plans.map((plan, i) => (
              <Box
                component="li"
                key={plan.box.flat().join()}
                onMouseEnter={() => outline(cornersOf(plan.box, 0))}
                onFocus={() => outline(cornersOf(plan.box, 0))}
                onMouseLeave={() => outline(null)}
                sx={{
                  display: 'flex',
                  gap: 1.25,
                  alignItems: 'center',
                  py: 0.75,
                  borderBottom: '1px solid var(--mui-palette-divider)',
                }}
              >
                <LinePicture lines={plan.lines} width={84} height={62} />
                <Box sx={{ flex: 1, minWidth: 0 }}>
                  <TextField
                    size="small"
                    fullWidth
                    value={nameOf(i)}
                    onChange={(event) => setNames({ ...names, [i]: event.target.value })}
                    slotProps={{ htmlInput: { 'aria-label': `Name of plan ${i + 1}`, maxLength: 120 } }}
                  />
                  <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', mt: 0.5 }}>
                    <Box component="span" sx={{ color: 'text.secondary', fontSize: 12 }}>
                      {count(plan.paths, 'line')}
                    </Box>
                    <Button variant="text" aria-label={`Create drawing of ${nameOf(i)}`} onClick={() => cut([i])}>
                      Create drawing
                    </Button>
                  </Box>
                </Box>
              </Box>
            ))}
          </Box>
        )}
      </Part>
      <Part title="By hand">
        {region === null ? (
          <Button variant="outlined" onClick={outlining ? () => setTool({ kind: 'look' }) : drawRegion}>
            {outlining ? 'Stop drawing' : 'Draw a region'}
          </Button>
        ) : (
          <Box
            component="form"
            onSubmit={(event) => {
              event.preventDefault();
              cutRegion();
            }}
            sx={{ display: 'flex', gap: 1 }}
          >
            <TextField
              size="small"
              autoFocus
              placeholder={`${drawing.name}, part`}
              value={regionName}
              onChange={(event) => setRegionName(event.target.value)}
              slotProps={{ htmlInput: { 'aria-label': 'Name of the new drawing', maxLength: 120 } }}
              sx={{ flex: 1 }}
            />
            <Button type="submit" variant="contained">
              Create drawing
            </Button>
            <Button
              variant="text"
              onClick={() => {
                setRegion(null);
                outline(null);
              }}
            >
              Cancel
            </Button>
          </Box>
        )}
        <Box sx={{ color: 'text.secondary', mt: 0.75 }}>
          Click its corners on the board. Two corners and Enter make a rectangle.
        </Box>
      </Part>
      <Note kind="plain">
        A drawing cut out of a sheet keeps the sheet{'\u2019'}s file, roles and clean-up; its region is the first step
        of its recipe.{' '}
        <Button variant="text" onClick={() => setView({ intakePart: 'recipe' })}>
          See the recipe
        </Button>
      </Note>
    </>
  );
}

/** The largest writing within a box: most likely the plan's title. */
function titleOf({ primitives: { texts, origin } }: Underlay, [[x0, y0], [x1, y1]]: PlanBox): string {
  let best = { height: 0, text: '' };
  for (const text of texts) {
    const [x, y] = [text.x + origin[0], text.y + origin[1]];
    if (x >= x0 && x <= x1 && y >= y0 && y <= y1 && text.height > best.height * 1.001 && /[a-z]{3}/i.test(text.text))
      best = { height: text.height, text: text.text };
  }
  return best.text.replace(/\s+/g, ' ').trim();
}
