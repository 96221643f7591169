'use client';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import { useEffect, useMemo } from 'react';
import { counted } from '@/core/model/counted';
import { removeElements } from '@/core/tracing/removed';
import { BoardView } from '@/board/BoardView';
import type { BoardScene } from '@/board/scene';
import { SelectionStrip } from '@/board/SelectionStrip';
import type { BoardEvents } from '@/board/tools/world';
import { useReadings } from '@/project/readings';
import { useSelected } from '@/project/selected';
import { useSelection } from '@/project/selection';
import type { Session } from '@/project/session';
import { commitMade, useModel, useSession } from '@/project/useSession';
import { useView } from '@/project/view';
import { Icon, type IconName } from '@/ui/widgets/Icon';
import { DeskSpace } from './DeskSpace';
import { toggleBeside } from './finding/commands';
import { ViewsMenu } from './ViewsMenu';

/** Keeps the view a moment after it came to rest, milliseconds: React and the browser's store hear of it then. */
const restsAfter = 300;

/** Further parts of an element that a section shows, and those on levels that repeat its own, stand for it. */
const elementOf = (id: string): string => id.split(/[#@]/)[0];

let cameraTimer: ReturnType<typeof setTimeout> | undefined;

function candidateClicked(key: string | null, adding: boolean): void {
  const { point, choose, chosen } = useReadings.getState();
  if (key === null || !adding) point(key);
  else choose(chosen.has(key) ? [...chosen].filter((other) => other !== key) : [...chosen, key]);
}

function lineClicked(line: { drawingId: string; path: number } | null): void {
  const { station, set } = useView.getState();
  if (station !== 'intake') return;
  useSelection.getState().select(line);
  if (line) set({ drawingId: line.drawingId, intakePart: 'display' });
}

/** What becomes of what is done on the board. */
const eventsOf = (session: Session): BoardEvents => ({
  cameraChanged: (camera) => {
    clearTimeout(cameraTimer);
    cameraTimer = setTimeout(() => useView.getState().set({ camera }), restsAfter);
  },
  candidateClicked,
  lineClicked,
  selected: (ids) => useSelected.getState().select([...ids].map(elementOf)),
  drafted: (elements) => session.draft.set(elements),
  committed: (make) => void commitMade(session, make),
  deleted: (ids) => void session.commit((now) => removeElements(now, ids)),
});

/** The board with what floats over it: the selection, and the ways to space and back to the bench. */
export function DeskBoard({ scene, levelId }: { scene: BoardScene; levelId: string | null }) {
  const session = useSession();
  const { camera, inSpace, benchFolded, beside, only, set } = useView();
  const model = useModel('drawing', 'element');
  const nothing = model.count('drawing') === 0 && model.count('element') === 0;
  const events = useMemo(() => eventsOf(session), [session]);
  useSelectionKept(session);
  return (
    <>
      <BoardView
        scene={scene}
        draft={session.draft}
        camera={camera}
        events={events}
        empty={nothing ? 'No drawing yet. Bring a DXF plan in at Intake, or draw at Tracing.' : null}
      >
        {!inSpace && <SelectionStrip />}
      </BoardView>
      {inSpace && <DeskSpace levelId={levelId} />}
      <CornerButton
        icon="stack"
        words={inSpace ? 'Back to the plan' : 'The model in space'}
        label="The model in space"
        pressed={inSpace}
        press={() => set({ inSpace: !inSpace })}
        at={{ right: 10 }}
      />
      <CornerButton
        icon="beside"
        words={beside === null ? 'Open a second view' : 'Close the second view'}
        label="Second view"
        pressed={beside !== null}
        press={toggleBeside}
        at={{ right: 50 }}
      />
      <ViewsMenu />
      {only !== null && !inSpace && (
        <Button size="small" variant="outlined" onClick={() => set({ only: null })} sx={onlyStyle}>
          Only {counted(only.length, 'drawing')}, by a view: show all
        </Button>
      )}
      {benchFolded && (
        <CornerButton
          icon="unfold"
          words="Unfold the bench"
          press={() => set({ benchFolded: false })}
          at={{ left: 8 }}
        />
      )}
    </>
  );
}

const onlyStyle = {
  position: 'absolute',
  left: 10,
  bottom: 44,
  background: 'var(--mui-palette-zf-panel)',
} as const;

/** What is not there any more is not selected. */
function useSelectionKept({ model }: Session): void {
  useEffect(
    () =>
      model.subscribe(({ tables }) => {
        const { ids, select } = useSelected.getState();
        if (!tables.has('element') || ids.size === 0) return;
        const kept = [...ids].filter((id) => model.element[id] !== undefined);
        if (kept.length < ids.size) select(kept);
      }),
    [model],
  );
}

interface CornerProps {
  icon: IconName;
  words: string;
  label?: string;
  pressed?: boolean;
  press: () => void;
  at: { left: number } | { right: number };
}

function CornerButton({ icon, words, label = words, pressed, press, at }: CornerProps) {
  const ground = pressed ? 'zirconSoft' : 'panel';
  return (
    <Tooltip title={words}>
      <IconButton
        aria-label={label}
        aria-pressed={pressed}
        onClick={press}
        sx={{
          position: 'absolute',
          top: 8,
          ...at,
          background: `var(--mui-palette-zf-${ground})`,
          border: '1px solid var(--mui-palette-divider)',
        }}
      >
        <Icon name={icon} />
      </IconButton>
    </Tooltip>
  );
}
