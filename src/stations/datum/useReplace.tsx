'use client';
import { elementsFrom, heldWords, placeDrawing } from '@/core/model/drawings';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState, type ReactNode } from 'react';
import type { PlacementRow } from '@/core/model/state';
import { useCommit, useSession } from '@/project/useSession';

export type Replace = (placement: PlacementRow, label: string) => void;

/** Places a drawing anew. Where elements came from it, the person says whether they go along. */
export function useReplace(): { replace: Replace; question: ReactNode } {
  const [asked, setAsked] = useState<{ placement: PlacementRow; label: string; count: number } | null>(null);
  const commit = useCommit();
  const session = useSession();
  const apply = (placement: PlacementRow, label: string, take: boolean) => {
    setAsked(null);
    void commit((state) => placeDrawing(state, placement, label, take));
  };
  const replace: Replace = (placement, label) => {
    const { model: state, tell } = session;
    const before = state.placement[placement.id];
    const held = state.drawing[placement.id] && heldWords(state, state.drawing[placement.id]);
    const moves = JSON.stringify({ ...before, confirmed: true }) !== JSON.stringify({ ...placement, confirmed: true });
    if (moves && held) {
      tell({ kind: 'problem', text: held });
      return;
    }
    const count = elementsFrom(state, placement.id).length;
    if (moves && count > 0) setAsked({ placement, label, count });
    else apply(placement, label, false);
  };
  const question = (
    <Dialog open={asked !== null} onClose={() => setAsked(null)} aria-labelledby="replace-title">
      <DialogTitle id="replace-title" sx={{ fontSize: 16, fontWeight: 700 }}>
        {asked?.count} {asked?.count === 1 ? 'element was' : 'elements were'} read from this drawing
      </DialogTitle>
      <DialogContent>
        {asked?.label}. Should {asked?.count === 1 ? 'it' : 'they'} change size and place with the drawing, or stay as{' '}
        {asked?.count === 1 ? 'it is' : 'they are'}?
      </DialogContent>
      <DialogActions>
        <Button variant="text" onClick={() => setAsked(null)}>
          Cancel
        </Button>
        <Button variant="outlined" onClick={() => asked && apply(asked.placement, asked.label, false)}>
          Elements stay
        </Button>
        <Button variant="contained" autoFocus onClick={() => asked && apply(asked.placement, asked.label, true)}>
          Elements go along
        </Button>
      </DialogActions>
    </Dialog>
  );
  return { replace, question };
}
