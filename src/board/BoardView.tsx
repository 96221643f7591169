'use client';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import { useEffect, useRef } from 'react';
import { Icon, type IconName } from '@/ui/widgets/Icon';
import { Board, type BoardEvents } from './Board';
import { useBoard } from './boardStore';
import type { Camera } from './camera';
import type { BoardScene } from './scene';

/** The board in the page. React mounts it and hands it scenes; while the pointer moves, React does nothing. */
export function BoardView({
  scene,
  camera,
  events,
  empty,
}: {
  scene: BoardScene;
  camera: Camera | null;
  events: BoardEvents;
  empty: string | null;
}) {
  const root = useRef<HTMLDivElement>(null);
  const below = useRef<HTMLCanvasElement>(null);
  const above = useRef<HTMLCanvasElement>(null);
  const top = useRef<HTMLCanvasElement>(null);
  const board = useRef<Board | null>(null);
  const latest = useRef({ scene, camera, events });
  const problem = useBoard((store) => store.problem);
  const tool = useBoard((store) => store.tool);

  useEffect(() => {
    latest.current = { scene, camera, events };
  });
  useEffect(() => {
    const made = new Board(
      root.current!,
      below.current!,
      above.current!,
      top.current!,
      latest.current.scene,
      latest.current.camera,
      {
        cameraChanged: (to) => latest.current.events.cameraChanged(to),
        candidateClicked: (key, adding) => latest.current.events.candidateClicked(key, adding),
        lineClicked: (line) => latest.current.events.lineClicked(line),
      },
    );
    board.current = made;
    return () => {
      made.dispose();
      board.current = null;
    };
  }, []);
  useEffect(() => {
    board.current?.setScene(scene);
  }, [scene]);

  return (
    <Box sx={{ position: 'relative', height: '100%' }}>
      <Box
        ref={root}
        tabIndex={0}
        role="application"
        aria-label="Board: arrow keys move, plus and minus zoom, Home shows all, N steps through what the cursor holds on to, Enter closes an outline, Escape ends a tool"
        sx={{
          position: 'absolute',
          inset: 0,
          overflow: 'hidden',
          touchAction: 'none',
          cursor: tool.kind === 'look' ? 'grab' : 'crosshair',
          '&:active': { cursor: tool.kind === 'look' ? 'grabbing' : 'crosshair' },
          background: 'var(--mui-palette-zf-board)',
          backgroundImage: 'radial-gradient(circle, var(--mui-palette-zf-lattice) 1px, transparent 1.4px)',
          '& canvas': { position: 'absolute', inset: 0, width: '100%', height: '100%' },
          '&:focus-visible': { outlineOffset: -2 },
        }}
      >
        <canvas ref={below} aria-hidden />
        <canvas ref={above} aria-hidden />
        <canvas ref={top} aria-hidden />
      </Box>
      {(problem ?? empty) !== null && (
        <Box
          role={problem ? 'alert' : 'note'}
          sx={{
            position: 'absolute',
            left: '50%',
            top: '45%',
            transform: 'translate(-50%, -50%)',
            maxWidth: 420,
            textAlign: 'center',
            color: 'text.secondary',
            fontSize: 15,
            pointerEvents: 'none',
          }}
        >
          {problem ?? empty}
        </Box>
      )}
      <Box
        sx={{
          position: 'absolute',
          right: 10,
          bottom: 10,
          display: 'flex',
          flexDirection: 'column',
          border: '1px solid var(--mui-palette-divider)',
          borderRadius: '5px',
          overflow: 'hidden',
        }}
      >
        <ViewButton icon="plus" label="Come nearer (+)" press={() => board.current?.zoomBy(1.4)} />
        <ViewButton icon="minus" label="Go further (-)" press={() => board.current?.zoomBy(1 / 1.4)} />
        <ViewButton icon="whole" label="Show all (Home)" press={() => board.current?.look('all')} />
      </Box>
    </Box>
  );
}

function ViewButton({ icon, label, press }: { icon: IconName; label: string; press: () => void }) {
  return (
    <Tooltip title={label} placement="left">
      <IconButton aria-label={label} onClick={press} sx={{ background: 'var(--mui-palette-zf-panel)' }}>
        <Icon name={icon} />
      </IconButton>
    </Tooltip>
  );
}
