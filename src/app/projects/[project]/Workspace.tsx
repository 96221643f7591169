'use client';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import { useSnackbar } from 'notistack';
import { useEffect, useRef, useState } from 'react';
import { Group, Panel, Separator } from 'react-resizable-panels';
import { changeLevel, hangsOn, insertLevel, levelsUp } from '@/core/model/levels';
import { BoardView } from '@/board/BoardView';
import { hearCursor, useBoard } from '@/board/boardStore';
import { StackView } from '@/board/stack/StackView';
import { activeDrawings, lengthsOf, useProject } from '@/project/store';
import { useReadings } from '@/project/readings';
import { useCommitResult } from '@/project/useCommitResult';
import { drawingInHand } from '@/project/useDrawing';
import { useSelection } from '@/project/selection';
import { useUnderlays } from '@/project/underlays';
import { openView, useView, type StationName } from '@/project/view';
import { DatumBench } from '@/stations/datum/DatumBench';
import { HandoverBench } from '@/stations/handover/HandoverBench';
import { IntakeBench } from '@/stations/intake/IntakeBench';
import { ReadingBench } from '@/stations/reading/ReadingBench';
import { SortingBench } from '@/stations/sorting/SortingBench';
import type { Snapshot } from '@/server/snapshot';
import { CourseRail } from '@/ui/shell/CourseRail';
import { FindOrDo } from '@/ui/shell/FindOrDo';
import { LevelLadder } from '@/ui/shell/LevelLadder';
import { StatusLine } from '@/ui/shell/StatusLine';
import { TopBar } from '@/ui/shell/TopBar';
import { Icon } from '@/ui/widgets/Icon';
import { Gone } from './Gone';
import { useActions } from './useActions';
import { useBoardScene, useStackScene } from './useBoardScene';
import { railStations } from './railStations';

const benches: Record<StationName, () => React.ReactNode> = {
  intake: IntakeBench,
  datum: DatumBench,
  sorting: SortingBench,
  reading: ReadingBench,
  handover: HandoverBench,
};

/** A project: course, bench, board, level ladder and status line. */
export function Workspace({ id, snapshot }: { id: string; snapshot: Snapshot }) {
  const [ready, setReady] = useState(false);
  const first = useRef(snapshot);
  const gone = useProject((store) => store.gone);
  useEffect(() => {
    let here = true;
    const close = useProject.getState().open(id, first.current);
    void openView(id).then(() => {
      if (here) setReady(true);
    });
    return () => {
      here = false;
      close();
    };
  }, [id]);
  if (gone !== null) return <Gone message={gone} />;
  return ready ? <Desk /> : null;
}

function Desk() {
  const store = useProject();
  const { state, intakes } = store;
  const view = useView();
  const Bench = benches[view.station];
  const lengths = lengthsOf(store);
  const drawings = activeDrawings(state);
  const levels = levelsUp(state);
  const present =
    levels.find((level) => level.id === view.levelId) ??
    levels.find((level) => Math.abs(level.elevation) < 1e-6) ??
    levels[0];
  const { scene, opening } = useBoardScene(present?.id ?? null);
  const stack = useStackScene(view.stacked);
  const actions = useActions();
  const readings = useReadings((readingStore) => readingStore.readings);
  const lookAt = useBoard((board) => board.lookAt);
  const commit = useCommitResult();
  useMessages();
  useUndoKeys();

  useEffect(() => {
    useUnderlays.getState().open(store.id, state, drawings);
  });
  useEffect(() => {
    if (view.levelId === null && present) view.set({ levelId: present.id });
  });
  // The drawing in hand stays in hand when another comes in.
  useEffect(() => {
    const inHand = drawingInHand(drawings, view.drawingId, present?.id ?? null);
    if (inHand && inHand.id !== view.drawingId) view.set({ drawingId: inHand.id });
  });
  // Reading goes on at its own bench only; what it found stays.
  useEffect(() => {
    if (view.station !== 'reading') return;
    for (const { id: drawingId, underlay } of scene.drawings) {
      const drawing = state.drawing[drawingId];
      if (drawing && state.placement[drawingId]?.upright === null)
        useReadings.getState().refresh(state, drawing, underlay);
    }
  });
  const shownAll = useRef(view.camera !== null);
  useEffect(() => {
    if (!shownAll.current && scene.drawings.length > 0) {
      shownAll.current = true;
      lookAt('all');
    }
  }, [scene.drawings.length, lookAt]);

  const lines = scene.drawings.reduce((sum, drawing) => sum + drawing.underlay.segments.layer.length, 0);
  const counts = [
    `${lines.toLocaleString('en')} lines`,
    ...(scene.candidates.length > 0
      ? [`${scene.candidates.length} ${scene.candidates.length === 1 ? 'candidate' : 'candidates'}`]
      : []),
    `${scene.elements.length} elements`,
  ].join(', ');
  const working = intakes.filter((intake) => intake.state === 'reading' || intake.state === 'waiting').length;
  const work = [
    working > 0 ? `reading ${working} file${working === 1 ? '' : 's'}` : '',
    opening > 0 ? 'opening drawings' : '',
  ]
    .filter(Boolean)
    .join(', ');

  return (
    <Box sx={{ height: '100vh', display: 'flex', flexDirection: 'column', overflow: 'hidden' }}>
      <TopBar search={<FindOrDo actions={actions} />} />
      <Box sx={{ flex: 1, minHeight: 0, display: 'flex' }}>
        <CourseRail
          stations={railStations(state, intakes, readings)}
          present={view.station}
          go={(station) => view.set({ station: station as StationName, benchFolded: false })}
        />
        <Group orientation="horizontal" id="workspace" style={{ flex: 1, minWidth: 0 }}>
          {!view.benchFolded && (
            <>
              <Panel id="bench" defaultSize="380px" minSize="280px" maxSize="60%">
                <Box
                  component="section"
                  aria-label="Bench"
                  sx={{
                    height: '100%',
                    overflowY: 'auto',
                    background: 'var(--mui-palette-zf-panel)',
                    px: 2.25,
                    py: 1.75,
                    position: 'relative',
                  }}
                >
                  <Tooltip title="Fold the bench">
                    <IconButton
                      aria-label="Fold the bench"
                      onClick={() => view.set({ benchFolded: true })}
                      sx={{ position: 'absolute', right: 6, top: 8, zIndex: 1 }}
                    >
                      <Icon name="fold" />
                    </IconButton>
                  </Tooltip>
                  <Bench key={view.station} />
                </Box>
              </Panel>
              <Separator
                style={{
                  width: 4,
                  borderLeft: '1px solid var(--mui-palette-divider)',
                  background: 'var(--mui-palette-zf-board)',
                  cursor: 'col-resize',
                }}
                aria-label="Width of the bench"
              />
            </>
          )}
          <Panel id="board" minSize="300px">
            <Box component="main" sx={{ height: '100%', position: 'relative' }}>
              <BoardView
                scene={scene}
                camera={view.camera}
                empty={drawings.length === 0 ? 'No drawing yet. Bring a DXF plan in at Intake.' : null}
                events={{
                  cameraChanged: (camera) => keepCamera(() => view.set({ camera })),
                  candidateClicked: (key, adding) => {
                    const { point, choose, chosen } = useReadings.getState();
                    if (key !== null && adding)
                      choose(chosen.has(key) ? [...chosen].filter((other) => other !== key) : [...chosen, key]);
                    else point(key);
                  },
                  lineClicked: (line) => {
                    if (view.station !== 'intake') return;
                    useSelection.getState().select(line);
                    if (line) view.set({ drawingId: line.drawingId, intakePart: 'display' });
                  },
                }}
              />
              {stack && <StackView scene={stack} />}
              <Tooltip title={view.stacked ? 'Back to the plan' : 'All levels in space'}>
                <IconButton
                  aria-label="All levels in space"
                  aria-pressed={view.stacked}
                  onClick={() => view.set({ stacked: !view.stacked })}
                  sx={{
                    position: 'absolute',
                    right: 10,
                    top: 10,
                    background: view.stacked ? 'var(--mui-palette-zf-zirconSoft)' : 'var(--mui-palette-zf-panel)',
                    border: '1px solid var(--mui-palette-divider)',
                  }}
                >
                  <Icon name="stack" />
                </IconButton>
              </Tooltip>
              {view.benchFolded && (
                <Tooltip title="Unfold the bench">
                  <IconButton
                    aria-label="Unfold the bench"
                    onClick={() => view.set({ benchFolded: false })}
                    sx={{
                      position: 'absolute',
                      left: 8,
                      top: 8,
                      background: 'var(--mui-palette-zf-panel)',
                      border: '1px solid var(--mui-palette-divider)',
                    }}
                  >
                    <Icon name="unfold" />
                  </IconButton>
                </Tooltip>
              )}
            </Box>
          </Panel>
        </Group>
        <LevelLadder
          unit={lengths}
          present={present?.id ?? null}
          go={(levelId) =>
            view.set({
              levelId,
              drawingId:
                drawings.find(
                  (drawing) =>
                    state.placement[drawing.id]?.upright === null &&
                    drawing.levelId !== null &&
                    hangsOn(state, drawing, levelId) &&
                    !drawing.setAside,
                )?.id ?? view.drawingId,
              faceOn: null,
            })
          }
          levels={levels.map((level) => ({
            ...level,
            drawings: drawings
              .filter((drawing) => state.placement[drawing.id]?.upright === null && hangsOn(state, drawing, level.id))
              .map((drawing) => drawing.name),
            repeated: level.repeats === null ? null : (state.level[level.repeats]?.name ?? null),
          }))}
          change={(level, shift) => void commit((now) => changeLevel(now, level, shift))}
          add={() => {
            const top = levels[levels.length - 1];
            if (top) void commit((now) => insertLevel(now, top.id, 'above', crypto.randomUUID()));
          }}
          more={(levelId) => view.set({ station: 'datum', datumPart: 'levels', benchFolded: false, levelId })}
        />
      </Box>
      <StatusLine
        hear={hearCursor}
        unit={lengths}
        axes={scene.axes}
        upright={scene.heights !== null}
        level={scene.heights !== null ? (scene.drawings[0]?.name ?? '') : (present?.name ?? '')}
        counts={counts}
        work={work}
      />
    </Box>
  );
}

let cameraTimer: ReturnType<typeof setTimeout> | undefined;

/** Keeps the view a moment after it came to rest: React and the browser's store hear of it then, not at every move. */
function keepCamera(keep: () => void): void {
  clearTimeout(cameraTimer);
  cameraTimer = setTimeout(keep, 300);
}

/** Shows what the store has to tell. */
function useMessages(): void {
  const { enqueueSnackbar } = useSnackbar();
  const messages = useProject((store) => store.messages);
  const last = useRef(0);
  useEffect(() => {
    for (const message of messages) {
      if (message.key <= last.current) continue;
      last.current = message.key;
      enqueueSnackbar(message.text, message.kind === 'problem' ? { variant: 'error', autoHideDuration: 12_000 } : {});
    }
  }, [messages, enqueueSnackbar]);
}

function useUndoKeys(): void {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (
        !(event.ctrlKey || event.metaKey) ||
        event.target instanceof HTMLInputElement ||
        event.target instanceof HTMLTextAreaElement
      )
        return;
      const key = event.key.toLowerCase();
      if (key === 'z' || key === 'y') {
        event.preventDefault();
        const { undo, redo } = useProject.getState();
        void (key === 'y' || event.shiftKey ? redo() : undo());
      }
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
}
