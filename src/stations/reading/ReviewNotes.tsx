'use client';
import Button from '@mui/material/Button';
import type { Candidate, ColumnCandidate } from '@/core/reading/candidate';
import { Note } from '@/ui/widgets/Heading';

/** That some candidates are in the model already. */
export function ConflictNote({ count, show }: { count: number; show: () => void }) {
  return (
    <Note kind="look">
      {count} of these the model has already, or call another line alike; they are left out unless you choose them.{' '}
      <Button variant="text" onClick={show}>
        Show them
      </Button>
    </Note>
  );
}

const onCrossing = (candidate: ColumnCandidate): ColumnCandidate => ({
  ...candidate,
  asRead: candidate.element,
  element: { ...candidate.element, position: candidate.crossing!.point },
});

/** How far near misses are off: "2 to 12 mm". */
function nearWords(near: readonly ColumnCandidate[]): string {
  const off = near.map(({ crossing }) => crossing!.distance * 1000);
  const [low, high] = [
    off.reduce((a, b) => Math.min(a, b)).toFixed(0),
    off.reduce((a, b) => Math.max(a, b)).toFixed(0),
  ];
  return low === high ? `${low} mm` : `${low} to ${high} mm`;
}

/** That some columns stand close to their crossings and not on them. */
export function NearNote({ near, accept }: { near: ColumnCandidate[]; accept: (candidates: Candidate[]) => void }) {
  const one = near.length === 1;
  return (
    <Note kind="look">
      {one ? '1 column lies' : `${near.length} columns lie`} {nearWords(near)} off {one ? 'its' : 'their'} crossing.{' '}
      <Button variant="text" onClick={() => accept(near.map(onCrossing))}>
        {one ? 'Align it' : 'Align all'}
      </Button>
    </Note>
  );
}
