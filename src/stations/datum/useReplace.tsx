'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useEffect, useMemo, useState, type ReactNode } from 'react';
import { place, type Placement } from '@/core/datum/placement';
import { boxOf } from '@/core/geometry/boxIndex';
import type { Point } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import { boxOfElement } from '@/core/kinds/kinds';
import { carriedBy, hangingOn, type Hanging } from '@/core/model/correction';
import { counted } from '@/core/model/counted';
import { heldWords, placeDrawing } from '@/core/model/drawings';
import type { Model } from '@/core/model/model';
import type { PlacementRow } from '@/core/model/state';
import { describeElements } from '@/core/tracing/words';
import { mainContent } from '@/core/underlay/mainContent';
import { useBoard } from '@/board/boardStore';
import { underlayOf, useUnderlays } from '@/project/underlays';
import { useCommit, useSession } from '@/project/useSession';
import { useView } from '@/project/view';

export type Replace = (placement: PlacementRow, label: string) => void;

/** A drawing that is to be placed anew, and what hangs on it. */
interface Asked {
  placement: PlacementRow;
  label: string;
  outline: Point[];
}

/** Shown on the board at most: of more one sees no more. */
const mostShown = 5000;

/** Where a plan lies now: the corners of its main content; none of what stands upright. */
function outlineOf(model: Model, drawingId: string): Point[] {
  const underlay = underlayOf(useUnderlays.getState().entries, drawingId);
  const placement = model.placement[drawingId];
  const main = underlay === null ? null : mainContent(underlay.primitives);
  if (main === null || placement === undefined || placement.upright !== null) return [];
  const [[x1, y1], [x2, y2]] = main;
  const corners: Point[] = [
    [x1, y1],
    [x2, y1],
    [x2, y2],
    [x1, y2],
  ];
  return corners.map((corner) => place(placement as Placement, corner));
}

/** Places a drawing anew. Where something hangs on it, that is shown, and the person says whether it goes along. */
export function useReplace(): { replace: Replace; question: ReactNode } {
  const [asked, setAsked] = useState<Asked | null>(null);
  const commit = useCommit();
  const session = useSession();
  const replace: Replace = (placement, label) => {
    const { model, tell } = session;
    const drawing = model.drawing[placement.id];
    const before = model.placement[placement.id];
    const held = drawing && heldWords(model, drawing);
    const moves = JSON.stringify({ ...before, confirmed: true }) !== JSON.stringify({ ...placement, confirmed: true });
    if (moves && held) {
      tell({ kind: 'problem', text: held });
      return;
    }
    const outline = outlineOf(model, placement.id);
    const { read, drawn } = hangingOn(model, drawing, outline);
    if (moves && read.length + drawn.length > 0) {
      // Where they would come to lie is shown in the plan.
      useView.getState().set({ inSpace: false, faceOn: null });
      setAsked({ placement, label, outline });
    } else void commit((now) => placeDrawing(now, placement, label));
  };
  const question = asked === null ? null : <Question asked={asked} close={() => setAsked(null)} />;
  return { replace, question };
}

/** What hangs on the drawing, where it would come to lie, and whether it goes along. */
function Question({ asked, close }: { asked: Asked; close: () => void }) {
  const { placement, label, outline } = asked;
  const { model, draft } = useSession();
  const commit = useCommit();
  const [takes, setTakes] = useState({ read: true, drawn: true });
  const hanging = useMemo(() => hangingOn(model, model.drawing[placement.id], outline), [model, placement.id, outline]);
  const along = chosen(hanging, takes);
  const { read, drawn } = takes;
  const shown = useMemo(() => {
    const rows = chosen(hanging, { read, drawn }).slice(0, mostShown);
    return carriedBy(model, rows, model.placement[placement.id], placement);
  }, [model, hanging, read, drawn, placement]);
  useEffect(() => {
    draft.set(shown);
    return () => draft.clear();
  }, [draft, shown]);
  const apply = (take: boolean) => {
    close();
    void commit((now) => {
      const rows = take ? chosen(hangingOn(now, now.drawing[placement.id], outline), takes) : [];
      return placeDrawing(now, placement, label, rows);
    });
  };
  const count = hanging.read.length + hanging.drawn.length;
  return (
    <Box
      role="dialog"
      aria-labelledby="replace-title"
      onKeyDown={(event) => {
        if (event.key === 'Escape') close();
      }}
      sx={panelStyle}
    >
      <Box component="h2" id="replace-title" sx={{ fontSize: 16, fontWeight: 700, mt: 0, mb: 0.75 }}>
        {counted(count, 'element')} {count === 1 ? 'hangs' : 'hang'} on this drawing
      </Box>
      <Box sx={{ mb: 0.75 }}>
        {label}. The board shows where they would come to lie.{' '}
        <Button variant="text" size="small" disabled={shown.length === 0} onClick={() => lookAt(shown)}>
          Look at them
        </Button>
      </Box>
      <Group
        words={`${counted(hanging.read.length, 'element')} from this drawing`}
        rows={hanging.read}
        on={takes.read}
        turn={(on) => setTakes({ ...takes, read: on })}
      />
      <Group
        words={`${counted(hanging.drawn.length, 'element')} drawn by hand where it lies; typed sizes stay`}
        rows={hanging.drawn}
        on={takes.drawn}
        turn={(on) => setTakes({ ...takes, drawn: on })}
      />
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1.25 }}>
        <Button variant="text" onClick={close}>
          Cancel
        </Button>
        <Box sx={{ flex: 1 }} />
        <Button variant="outlined" onClick={() => apply(false)}>
          Elements stay
        </Button>
        <Button variant="contained" autoFocus disabled={along.length === 0} onClick={() => apply(true)}>
          Elements go along
        </Button>
      </Box>
    </Box>
  );
}

const chosen = ({ read, drawn }: Hanging, takes: { read: boolean; drawn: boolean }): ElementRow[] => [
  ...(takes.read ? read : []),
  ...(takes.drawn ? drawn : []),
];

function lookAt(rows: readonly ElementRow[]): void {
  const corners = rows.flatMap((row): Point[] => {
    const box = boxOfElement(row);
    return box === null
      ? []
      : [
          [box[0], box[1]],
          [box[2], box[3]],
        ];
  });
  if (corners.length > 0) useBoard.getState().lookAt(boxOf(corners));
}

function Group({
  words,
  rows,
  on,
  turn,
}: {
  words: string;
  rows: readonly ElementRow[];
  on: boolean;
  turn: (on: boolean) => void;
}) {
  if (rows.length === 0) return null;
  return (
    <Box>
      <FormControlLabel
        control={<Checkbox size="small" checked={on} onChange={(event) => turn(event.target.checked)} />}
        label={words}
      />
      <Box sx={{ color: 'text.secondary', fontSize: 12, pl: 3.75 }}>{describeElements(rows)}</Box>
    </Box>
  );
}

/** It lies over the bench's foot and not over the board: what it asks about is seen meanwhile. */
const panelStyle = {
  position: 'fixed',
  left: 96,
  bottom: 44,
  width: 440,
  zIndex: 'modal',
  p: 2,
  background: 'var(--mui-palette-zf-panel)',
  border: '1px solid var(--mui-palette-zf-zircon)',
  borderRadius: '5px',
  boxShadow: '0 6px 24px rgb(0 0 0 / 0.18)',
} as const;
