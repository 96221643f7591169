'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import InputBase from '@mui/material/InputBase';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useStore } from 'zustand';
import { place } from '@/core/datum/placement';
import { boxOf } from '@/core/geometry/boxIndex';
import type { Point } from '@/core/geometry/vector';
import { Model } from '@/core/model/model';
import type { DrawingRow } from '@/core/model/state';
import { contradiction, type MarkPlace } from '@/core/reading/beams/markPlaces';
import { findTexts, wordsOf } from '@/core/underlay/findTexts';
import { textBox } from '@/core/underlay/textBox';
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
import { Note } from '@/ui/widgets/Heading';
import { useScheme } from '@/ui/widgets/useScheme';
import { boardDrawing } from './useBoardScene';
import { useMarkPlaces } from './useMarkPlaces';

/** The view keeps this many text heights about what was found. */
const heightsAround = 14;
/** Texts found beyond this many are not counted one by one. */
const mostFound = 500;
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

/** Something to be looked at: its corners, about the drawing's origin and in its units. */
interface Target {
  drawingId: string;
  corners: Point[];
  height: number;
}

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
      traces: [],
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

/** The first place of a mark is looked at when the mark is another one, where possible on the drawing that is there. */
function useFollowed(places: readonly MarkPlace[], drawingId: string | undefined, go: (target: Target) => void): void {
  const followed = useRef<readonly MarkPlace[]>([]);
  useEffect(() => {
    if (followed.current === places || places.length === 0) return;
    followed.current = places;
    const best = places.find((one) => one.drawingId === drawingId && one.what !== 'mark') ?? places[0];
    go(targetOf(best));
  });
}

/** A place stands in the middle of its text; a row's in its key, perhaps with a word such as "Type" before it. */
const targetOf = ({ drawingId, at: [x, y], height, words, what }: MarkPlace): Target => {
  const letters = what === 'row' ? 6 : words.length;
  const half = (0.35 * letters + 0.5) * height;
  return {
    drawingId,
    height,
    corners: [
      [x - half, y - height],
      [x + half, y - height],
      [x + half, y + height],
      [x - half, y + height],
    ],
  };
};

const placeWords: Record<MarkPlace['what'], string> = { row: 'schedule', title: 'title', mark: 'plan' };

function Marks({
  mark,
  places,
  go,
  names,
}: {
  mark: string;
  places: readonly MarkPlace[];
  go: (target: Target) => void;
  names: (id: string) => string;
}) {
  const against = contradiction(mark.toUpperCase(), places, names);
  return (
    <Box role="region" aria-label={`Places of ${mark}`} sx={marksStyle}>
      {places.length === 0 && <span>No open drawing has anything of {mark}.</span>}
      {places.slice(0, 12).map((one) => (
        <Button
          key={`${one.drawingId} ${one.at.join()}`}
          size="small"
          variant="outlined"
          title={`${placeWords[one.what]} in ${names(one.drawingId)}`}
          onClick={() => go(targetOf(one))}
        >
          <span className="mono">{one.words}</span>&nbsp;({placeWords[one.what]}, {names(one.drawingId)})
        </Button>
      ))}
      {against !== null && <Note kind="look">{against}</Note>}
    </Box>
  );
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

interface SearchProps {
  shown: BoardDrawing | null;
  go: (target: Target) => void;
  /** What the view was opened for. */
  begun: string;
}

/** Finds texts of the drawing; Enter goes to the next one. */
function SearchLine({ shown, go, begun }: SearchProps) {
  const [typed, setTyped] = useState(begun);
  const [at, setAt] = useState(-1);
  const found = useMemo(
    () => (shown === null ? [] : findTexts(shown.underlay.primitives, wordsOf(typed), mostFound)),
    [shown, typed],
  );
  const step = (by: number) => {
    if (shown === null || found.length === 0) return;
    const next = at === -1 && by < 0 ? found.length - 1 : (at + by + found.length) % found.length;
    setAt(next);
    const text = shown.underlay.primitives.texts[found[next]];
    go({ drawingId: shown.id, corners: [...textBox(text)], height: text.height });
  };
  // What the view was opened for is looked at once its drawing is there.
  const opened = useRef(begun === '');
  useEffect(() => {
    if (opened.current || found.length === 0) return;
    opened.current = true;
    step(1);
  });
  const count = `${at + 1} of ${found.length === mostFound ? `${mostFound} or more` : found.length}`;
  return (
    <Box sx={{ ...headStyle, minHeight: 30 }}>
      <InputBase
        value={typed}
        placeholder="Find a text in this drawing"
        inputProps={{ 'aria-label': 'Find a text in this drawing' }}
        onChange={(event) => {
          setTyped(event.target.value);
          setAt(-1);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') step(event.shiftKey ? -1 : 1);
        }}
        sx={{ flex: 1, fontSize: 13 }}
      />
      {typed.trim() !== '' && (
        <Box role="status" className="mono" sx={{ color: 'text.secondary', fontSize: 12 }}>
          {found.length === 0 ? 'none' : count}
        </Box>
      )}
      <IconButton aria-label="The text before" disabled={found.length === 0} onClick={() => step(-1)}>
        <Icon name="before" />
      </IconButton>
      <IconButton aria-label="The next text" disabled={found.length === 0} onClick={() => step(1)}>
        <Icon name="next" />
      </IconButton>
    </Box>
  );
}

const paneStyle = {
  height: '100%',
  display: 'flex',
  flexDirection: 'column',
  background: 'var(--mui-palette-zf-panel)',
} as const;

const headStyle = {
  display: 'flex',
  alignItems: 'center',
  gap: 0.5,
  px: 1,
  minHeight: 40,
  borderBottom: '1px solid var(--mui-palette-divider)',
} as const;

const marksStyle = {
  display: 'flex',
  flexWrap: 'wrap',
  gap: 0.5,
  px: 1,
  py: 0.5,
  fontSize: 12,
  maxHeight: 132,
  overflowY: 'auto',
  borderBottom: '1px solid var(--mui-palette-divider)',
} as const;
