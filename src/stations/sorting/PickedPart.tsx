'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import { metresPerDrawn, unplace, type Placement } from '@/core/datum/placement';
import { contains } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import { put, remove } from '@/core/model/edits';
import { counted } from '@/core/model/counted';
import { keepLines, picksOf } from '@/core/model/picks';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { roleNames, type Role } from '@/core/sorting/roles';
import { outlineOf } from '@/core/underlay/outline';
import { useBoard } from '@/board/boardStore';
import { useOverlay } from '@/project/overlay';
import { useModel, useApply, useCommit } from '@/project/useSession';
import { alikeIn, handlesOf, pathsOf, type Underlay } from '@/project/underlays';
import { Note, Part } from '@/ui/widgets/Heading';
import { Icon } from '@/ui/widgets/Icon';
import { AlikePart, likenessWords } from './AlikePart';
import { RoleChoice } from './RoleChoice';

/** Lines picked by hand on the board, kept as named sets with a role that goes before those of blocks and layers. */
export function PickedPart({
  drawing,
  placement,
  underlay,
}: {
  drawing: DrawingRow;
  placement: PlacementRow;
  underlay: Underlay;
}) {
  const state = useModel('pick');
  const apply = useApply();
  const commit = useCommit();
  const { tool, setTool } = useBoard();
  const show = useOverlay((store) => store.show);
  const [paths, setPaths] = useState<ReadonlySet<number>>(new Set());
  const [name, setName] = useState('');
  const { primitives } = underlay;
  const { lines, alike: lessons, answers } = picksOf(state, drawing.id);
  const sets = [...lines, ...lessons];

  // What is gathered is seen in colour over the drawing.
  useEffect(() => {
    if (paths.size > 0)
      show({
        drawingId: drawing.id,
        origin: primitives.origin,
        parts: [{ tone: 'evidence', lines: outlineOf(primitives, paths, []) }],
      });
    else show(null);
  }, [paths, primitives, drawing.id, show]);
  useEffect(
    () => () => {
      show(null);
      setTool({ kind: 'look' });
    },
    [show, setTool],
  );

  /** Everything that came by the same entity goes along. */
  const ofOne = (path: number): number[] =>
    [...primitives.top.keys()].filter((other) => primitives.top[other] === primitives.top[path]);
  const toggle = (path: number) =>
    setPaths((before) => {
      const next = new Set(before);
      const own = ofOne(path);
      for (const each of own)
        if (before.has(path)) next.delete(each);
        else next.add(each);
      return next;
    });
  const gather = () =>
    setTool({
      kind: 'gather',
      what: 'lines',
      prompt: 'line to add or drop',
      take: ({ drawingId, path }) => {
        if (drawingId === drawing.id) toggle(path);
      },
    });
  const surround = () =>
    setTool({
      kind: 'outline',
      prompt: 'corner round the lines',
      take: (corners) => {
        const ring = corners.map((p): Point => {
          const [x, y] = unplace(placement as Placement, p);
          return [x - primitives.origin[0], y - primitives.origin[1]];
        });
        setPaths((before) => new Set([...before, ...insideOf(primitives, ring)]));
      },
    });
  const keep = async (role: Role | null) => {
    if (role === null) return;
    const handles = await handlesOf(drawing.id, [...paths]);
    const done = apply((now) =>
      keepLines(now, drawing, name.trim() || `${roleNames[role]} by hand`, role, handles, () => crypto.randomUUID()),
    );
    if (done) {
      setPaths(new Set());
      setName('');
      setTool({ kind: 'look' });
    }
  };
  const showPick = async (pick: (typeof sets)[number]) => {
    if (pick.kind === 'lines') {
      setPaths(new Set(await pathsOf(drawing.id, pick.handles)));
      return;
    }
    const found = await alikeIn(drawing.id, pick.like, metresPerDrawn(placement as Placement));
    show({
      drawingId: drawing.id,
      origin: primitives.origin,
      parts: [{ tone: 'evidence', lines: outlineOf(primitives, found.paths, found.texts) }],
    });
  };
  const picking = (tool.kind === 'gather' && tool.what === 'lines') || tool.kind === 'outline';
  return (
    <>
      <Part
        title={
          paths.size === 0 ? 'Pick lines on the board' : `${paths.size} ${paths.size === 1 ? 'line' : 'lines'} picked`
        }
        aside={
          paths.size > 0 && (
            <Button variant="text" onClick={() => setPaths(new Set())}>
              Clear
            </Button>
          )
        }
      >
        <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
          {picking ? (
            <Button variant="outlined" onClick={() => setTool({ kind: 'look' })}>
              Stop picking
            </Button>
          ) : (
            <>
              <Button variant="outlined" onClick={gather}>
                One by one
              </Button>
              <Button variant="outlined" onClick={surround}>
                Inside an outline
              </Button>
            </>
          )}
        </Box>
        {paths.size > 0 && (
          <Box sx={{ display: 'flex', gap: 1, mt: 1, alignItems: 'center' }}>
            <TextField
              size="small"
              placeholder="Name, if it should have one"
              value={name}
              onChange={(event) => setName(event.target.value)}
              slotProps={{ htmlInput: { 'aria-label': 'Name of the picked lines', maxLength: 120 } }}
              sx={{ flex: 1 }}
            />
            <RoleChoice label="Role of the picked lines" role={undefined} choose={(role) => void keep(role)} />
          </Box>
        )}
      </Part>
      {sets.length === 0 && paths.size === 0 && (
        <Note kind="plain">
          Lines picked by hand have a role of their own, whatever layer they are on. What came by one block is picked
          together.
        </Note>
      )}
      <AlikePart drawing={drawing} placement={placement} underlay={underlay} />
      {sets.length > 0 && (
        <Part title="Picked before">
          <Box component="ul" aria-label="Picked lines" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {sets.map((pick) => (
              <Box
                component="li"
                key={pick.id}
                sx={{
                  display: 'grid',
                  gridTemplateColumns: '1fr 122px 28px',
                  gap: 1,
                  alignItems: 'center',
                  py: 0.25,
                  borderBottom: '1px solid var(--mui-palette-divider)',
                }}
              >
                <Box
                  component="button"
                  type="button"
                  onClick={() => void showPick(pick)}
                  sx={{
                    all: 'unset',
                    cursor: 'pointer',
                    overflow: 'hidden',
                    textOverflow: 'ellipsis',
                    whiteSpace: 'nowrap',
                    '&:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)' },
                  }}
                >
                  <b>{pick.name}</b>{' '}
                  <Box component="span" sx={{ color: 'text.secondary' }}>
                    {pick.kind === 'lines' ? counted(pick.handles.length, 'line') : likenessWords(pick.like)}
                  </Box>
                </Box>
                <RoleChoice
                  label={`Role of ${pick.name}`}
                  role={pick.role}
                  none="as their layers"
                  choose={(role) =>
                    void commit(() => ({
                      label: `${pick.name}: ${role ?? 'as their layers'}`,
                      changes: [role === null ? remove('pick', pick.id) : put('pick', { ...pick, role })],
                    }))
                  }
                />
                <IconButton
                  size="small"
                  aria-label={`Let ${pick.name} go`}
                  onClick={() =>
                    void commit(() => ({ label: `Let ${pick.name} go`, changes: [remove('pick', pick.id)] }))
                  }
                >
                  <Icon name="close" size={14} />
                </IconButton>
              </Box>
            ))}
          </Box>
        </Part>
      )}
      {answers.length > 0 && (
        <Part title="Settled for all alike">
          <Box component="ul" aria-label="Answers" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {answers.map(({ id, name: words }) => (
              <Box
                component="li"
                key={id}
                sx={{ display: 'grid', gridTemplateColumns: '1fr 28px', alignItems: 'center', py: 0.25 }}
              >
                {words}
                <IconButton
                  size="small"
                  aria-label={`Forget ${words}`}
                  onClick={() => void commit(() => ({ label: `Forget ${words}`, changes: [remove('pick', id)] }))}
                >
                  <Icon name="close" size={14} />
                </IconButton>
              </Box>
            ))}
          </Box>
        </Part>
      )}
    </>
  );
}

/** The paths that lie wholly inside a ring, which is about the origin. */
function insideOf(p: Underlay['primitives'], ring: readonly Point[]): number[] {
  const [xs, ys] = [ring.map(([x]) => x), ring.map(([, y]) => y)];
  const [x0, y0, x1, y1] = [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
  const within = (x: number, y: number) => x >= x0 && x <= x1 && y >= y0 && y <= y1 && contains(ring, [x, y]);
  return [...p.layer.keys()].filter((path) => {
    for (let v = p.start[path]; v < p.start[path + 1]; v += 1) if (!within(p.xy[2 * v], p.xy[2 * v + 1])) return false;
    return p.start[path + 1] > p.start[path];
  });
}
