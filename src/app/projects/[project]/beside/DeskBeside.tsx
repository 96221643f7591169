'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useStore } from 'zustand';
import { place } from '@/core/datum/placement';
import { boxOf } from '@/core/geometry/boxIndex';
import { Model } from '@/core/model/model';
import type { DrawingRow } from '@/core/model/state';
import { boardDesk, type BoardDesk } from '@/board/boardStore';
import { BoardView } from '@/board/BoardView';
import type { BoardDrawing, BoardScene } from '@/board/scene';
import type { BoardEvents } from '@/board/tools/world';
import { Draft } from '@/project/draft';
import type { Overlay } from '@/project/overlay';
import { activeDrawings } from '@/project/projectRow';
import { useUnderlays } from '@/project/underlays';
import { useLengths, useModel, useMoment } from '@/project/useSession';
import { useView } from '@/project/view';
import { Icon } from '@/ui/widgets/Icon';
import { useScheme } from '@/ui/widgets/useScheme';
import { boardDrawing } from '../useBoardScene';
import { Marks, useFollowed } from './Marks';
import { SearchLine } from './SearchLine';
import { headStyle } from './styles';
import type { Target } from './target';
import { useMarkPlaces } from './useMarkPlaces';

/** The view keeps this many text heights about what was found. */
const heightsAround = 14;
const nothing: ReadonlySet<string> = new Set();
const noModel = new Model();
/** Nothing is made in the second view: of what happens in it only the look is kept. */
const quiet: Omit<BoardEvents, 'cameraChanged'> = {
  candidateClicked: () => undefined,
  lineClicked: () => undefined,
  selected: () => undefined,
  drafted: () => undefined,
  committed: () => undefined,
  deleted: () => undefined,
};

/** A second drawing beside the board: looked at, measured, searched, and following the mark that is selected. */
export function DeskBeside() {
  const beside = useView((view) => view.beside);
  const drawings = activeDrawings(useModel('drawing'));
  const drawing = drawings.find(({ id }) => id === beside?.drawingId) ?? drawings[0];
  return beside === null || drawing === undefined ? null : <Pane beside={beside} drawing={drawing} all={drawings} />;
}

type Beside = NonNullable<ReturnType<typeof useView.getState>['beside']>;

function Pane({ beside, drawing, all }: { beside: Beside; drawing: DrawingRow; all: DrawingRow[] }) {
  const set = useView((view) => view.set);
  const [desk] = useState(boardDesk);
  const [target, setTarget] = useState<Target | null>(null);
  const shown = useShown(drawing);
  const problem = useUnderlays((store) => store.entries[drawing.id]?.problem ?? null);
  const { mark, places } = useMarkPlaces(beside.follows);
  const turn = (drawingId: string) => set({ beside: { ...beside, drawingId, camera: null } });
  const go = (next: Target) => {
    setTarget(next);
    if (next.drawingId !== beside.drawingId) turn(next.drawingId);
  };
  useFollowed(places, drawing.id, go);
  useLookAt(desk, shown, target);
  return (
    <Box component="section" aria-label="Second view" sx={paneStyle}>
      <Box sx={headStyle}>
        <Select
          size="small"
          variant="standard"
          value={drawing.id}
          inputProps={{ 'aria-label': 'Drawing in the second view' }}
          onChange={(event) => turn(event.target.value)}
          sx={{ flex: 1, minWidth: 0 }}
        >
          {all.map(({ id, name, setAside }) => (
            <MenuItem key={id} value={id}>
              {name}
              {setAside ? ' (set aside)' : ''}
            </MenuItem>
          ))}
        </Select>
        <MeasureButton desk={desk} />
        <Button
          size="small"
          variant="text"
          aria-pressed={beside.follows}
          title="Shows what drawings have of the mark that is selected"
          onClick={() => set({ beside: { ...beside, follows: !beside.follows } })}
          sx={{ background: beside.follows ? 'var(--mui-palette-zf-zirconSoft)' : 'none' }}
        >
          Follow
        </Button>
        <IconButton aria-label="Close the second view" onClick={() => set({ beside: null })}>
          <Icon name="close" />
        </IconButton>
      </Box>
      <SearchLine key={`${drawing.id} ${beside.find ?? ''}`} shown={shown} go={go} begun={beside.find ?? ''} />
      {mark !== '' && <Marks mark={mark} places={places} go={go} names={namesOf(all)} />}
      <Box sx={{ flex: 1, minHeight: 0, position: 'relative' }}>
        {shown === null ? (
          <Box role="status" sx={{ p: 2, color: 'text.secondary' }}>
            {problem ?? 'opening the drawing \u2026'}
          </Box>
        ) : (
          <BesideBoard key={drawing.id} desk={desk} shown={shown} target={target} />
        )}
      </Box>
    </Box>
  );
}

/** The drawing as the second view shows it, set aside or not. */
function useShown(drawing: DrawingRow): BoardDrawing | null {
  const moment = useMoment('placement', 'role', 'display');
  const entries = useUnderlays((store) => store.entries);
  return useMemo(
    () => boardDrawing(moment.model, entries, { ...drawing, setAside: false }, null),
    [moment, entries, drawing],
  );
}

const namesOf =
  (drawings: readonly { id: string; name: string }[]) =>
  (id: string): string =>
    drawings.find((drawing) => drawing.id === id)?.name ?? 'a drawing';

/** The board of the second view. */
function BesideBoard({ desk, shown, target }: { desk: BoardDesk; shown: BoardDrawing; target: Target | null }) {
  const { beside, set } = useView();
  const unit = useLengths();
  const { tokens, dark } = useScheme();
  const [draft] = useState(() => new Draft());
  const overlay = useMemo(() => overlayOf(shown, target), [shown, target]);
  const scene = useMemo(
    (): BoardScene => ({
      tokens,
      dark,
      unit,
      drawings: [shown],
      model: noModel,
      levelId: null,
      candidates: [],
      pointed: null,
      chosen: nothing,
      selected: nothing,
      overlay,
      picture: null,
      traces: [],
      others: [],
      heights: null,
      plane: null,
      axes: null,
      axesShown: false,
    }),
    [tokens, dark, unit, shown, overlay],
  );
  const events = useMemo(
    (): BoardEvents => ({
      ...quiet,
      cameraChanged: (camera) => {
        const now = useView.getState().beside;
        if (now !== null) set({ beside: { ...now, camera } });
      },
    }),
    [set],
  );
  return (
    <BoardView
      desk={desk}
      label="Second view: arrow keys move, plus and minus zoom, Home shows all"
      scene={scene}
      draft={draft}
      camera={beside?.camera ?? null}
      events={events}
      empty={null}
    />
  );
}

/** What was found is outlined. */
function overlayOf({ id, underlay: { primitives } }: BoardDrawing, target: Target | null): Overlay | null {
  if (target === null || target.drawingId !== id) return null;
  const { corners } = target;
  const lines = corners.flatMap((p, i) => [...p, ...corners[(i + 1) % corners.length]]);
  return {
    drawingId: id,
    origin: primitives.origin,
    parts: [{ tone: 'evidence', lines: Float32Array.from(lines) }],
  };
}

/** Looks at what was found, once its drawing is there. */
function useLookAt(desk: BoardDesk, shown: BoardDrawing | null, target: Target | null): void {
  const looked = useRef<Target | null>(null);
  useEffect(() => {
    if (shown === null || target === null || target.drawingId !== shown.id || looked.current === target) return;
    looked.current = target;
    const [ox, oy] = shown.underlay.primitives.origin;
    const around = heightsAround * target.height;
    const [minX, minY, maxX, maxY] = boxOf(target.corners);
    const placed = [
      [minX - around, minY - around],
      [maxX + around, minY - around],
      [maxX + around, maxY + around],
      [minX - around, maxY + around],
    ].map(([x, y]) => place(shown.placement, [x + ox, y + oy]));
    desk.getState().lookAt([...boxOf(placed)]);
  }, [desk, shown, target]);
}

function MeasureButton({ desk }: { desk: BoardDesk }) {
  const measuring = useStore(desk, ({ tool }) => tool.kind === 'measure');
  return (
    <IconButton
      aria-label="Measure in the second view"
      aria-pressed={measuring}
      onClick={() => {
        const { setTool, setMeasured } = desk.getState();
        setTool(measuring ? { kind: 'look' } : { kind: 'measure', mode: 'distance' });
        if (measuring) setMeasured(null);
      }}
      sx={{ background: measuring ? 'var(--mui-palette-zf-zirconSoft)' : 'none' }}
    >
      <Icon name="measure" />
    </IconButton>
  );
}

const paneStyle = {
  height: '100%',
  display: 'flex',
  flexDirection: 'column',
  background: 'var(--mui-palette-zf-panel)',
} as const;
