'use client';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import { useEffect, useRef, type ReactNode } from 'react';
import { useStore } from 'zustand';
import type { Draft } from '@/project/draft';
import { Icon, type IconName } from '@/ui/widgets/Icon';
import { Board } from './Board';
import { useBoard, type BoardDesk } from './boardStore';
import { CursorFields } from './CursorFields';
import type { Camera } from './camera';
import type { BoardScene } from './scene';
import type { BoardEvents } from './tools/world';

const help =
  'Board: arrow keys move, plus and minus zoom, Home shows all, digits type a point, Enter ' +
  'takes it, Delete deletes what is selected, Escape goes one step back; further keys ' +
  'stand in the guide';

/** The board of this window, for tests that measure it. */
declare global {
  interface Window {
    zirconBoard?: Board | null;
  }
}

interface Props {
  scene: BoardScene;
  draft: Draft;
  camera: Camera | null;
  events: BoardEvents;
  /** What it is asked for; left out for the board that the benches speak with. */
  desk?: BoardDesk;
  label?: string;
  /** What is said where there is nothing to show. */
  empty: string | null;
  children?: ReactNode;
}

/** The board in the page. React mounts it and hands it scenes; while the pointer moves, React does nothing. */
export function BoardView({ scene, draft, camera, events, empty, children, desk = useBoard, label = help }: Props) {
  const root = useRef<HTMLDivElement>(null);
  const canvases = useRef<(HTMLCanvasElement | null)[]>([]);
  const board = useRef<Board | null>(null);
  const latest = useRef({ scene, camera, events });
  const main = desk === useBoard;
  const problem = useStore(desk, (store) => store.problem);
  const looking = useStore(desk, (store) => store.tool.kind === 'look');

  useEffect(() => {
    latest.current = { scene, camera, events };
  });
  useEffect(() => {
    const [below, model, above, marks] = canvases.current as HTMLCanvasElement[];
    const { scene: first, camera: kept } = latest.current;
    const desks = { desk, reports: main };
    const made = new Board(root.current!, { below, model, above, marks }, first, draft, kept, forwarded(latest), desks);
    board.current = made;
    if (main) window.zirconBoard = made;
    return () => {
      made.dispose();
      board.current = null;
      if (main) window.zirconBoard = null;
    };
  }, [draft, desk, main]);
  useEffect(() => {
    board.current?.setScene(scene);
  }, [scene]);

  return (
    <Box sx={{ position: 'relative', height: '100%' }}>
      <Box ref={root} tabIndex={0} role="application" aria-label={label} sx={groundStyle(looking)}>
        {[0, 1, 2, 3].map((i) => (
          <canvas
            key={i}
            aria-hidden
            ref={(canvas) => {
              canvases.current[i] = canvas;
            }}
          />
        ))}
      </Box>
      {(problem ?? empty) !== null && (
        <Box role={problem ? 'alert' : 'note'} sx={noteStyle}>
          {problem ?? empty}
        </Box>
      )}
      {main && <CursorFields board={() => board.current} lengths={scene.unit} back={() => root.current?.focus()} />}
      {children}
      <Box sx={buttonsStyle}>
        <ViewButton icon="plus" label="Come nearer (+)" press={() => board.current?.zoomBy(1.4)} />
        <ViewButton icon="minus" label="Go further (-)" press={() => board.current?.zoomBy(1 / 1.4)} />
        <ViewButton icon="whole" label="Show all (Home)" press={() => board.current?.look('all')} />
      </Box>
    </Box>
  );
}

/** Events go to whoever the page names now, not to who it named when the board was made. */
const forwarded = (latest: { current: { events: BoardEvents } }): BoardEvents => ({
  cameraChanged: (to) => latest.current.events.cameraChanged(to),
  candidateClicked: (key, adding) => latest.current.events.candidateClicked(key, adding),
  lineClicked: (line) => latest.current.events.lineClicked(line),
  selected: (ids) => latest.current.events.selected(ids),
  drafted: (elements) => latest.current.events.drafted(elements),
  committed: (make) => latest.current.events.committed(make),
  deleted: (ids) => latest.current.events.deleted(ids),
});

const groundStyle = (looking: boolean) => ({
  position: 'absolute',
  inset: 0,
  overflow: 'hidden',
  touchAction: 'none',
  cursor: looking ? 'grab' : 'crosshair',
  '&:active': { cursor: looking ? 'grabbing' : 'crosshair' },
  background: 'var(--mui-palette-zf-board)',
  backgroundImage: 'radial-gradient(circle, var(--mui-palette-zf-lattice) 1px, transparent 1.4px)',
  '& canvas': { position: 'absolute', inset: 0, width: '100%', height: '100%' },
  '&:focus-visible': { outlineOffset: -2 },
});

const noteStyle = {
  position: 'absolute',
  left: '50%',
  top: '45%',
  transform: 'translate(-50%, -50%)',
  maxWidth: 420,
  textAlign: 'center',
  color: 'text.secondary',
  fontSize: 15,
  pointerEvents: 'none',
} as const;

const buttonsStyle = {
  position: 'absolute',
  right: 10,
  bottom: 10,
  display: 'flex',
  flexDirection: 'column',
  border: '1px solid var(--mui-palette-divider)',
  borderRadius: '5px',
  overflow: 'hidden',
} as const;

function ViewButton({ icon, label, press }: { icon: IconName; label: string; press: () => void }) {
  return (
    <Tooltip title={label} placement="left">
      <IconButton aria-label={label} onClick={press} sx={{ background: 'var(--mui-palette-zf-panel)' }}>
        <Icon name={icon} />
      </IconButton>
    </Tooltip>
  );
}
