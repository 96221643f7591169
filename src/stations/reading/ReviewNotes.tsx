'use client';
import Button from '@mui/material/Button';
import type { Candidate, ColumnCandidate } from '@/core/reading/candidate';
import { useView } from '@/project/view';
import { Note } from '@/ui/widgets/Heading';
import type { OtherDrawing } from '@/project/useBeside';

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

/** That what is listed is what the model has: both drawings are sources of it then. */
export function SameNote({ same }: { same: () => void }) {
  return (
    <Note kind="plain">
      Where this is what the model has, it can be kept as the same element; nothing is doubled.{' '}
      <Button variant="text" onClick={same}>
        They are the same
      </Button>
    </Note>
  );
}

/** How another drawing of the storey compares, of one kind; nothing where it does not show it. */
export function BesideNote({
  kind,
  other: { id, name, alike, unlike, onlyThere },
  show,
}: {
  kind: Candidate['kind'];
  other: OtherDrawing;
  show: () => void;
}) {
  const { set } = useView();
  const otherwise = [...unlike.keys()].filter((key) => key.startsWith(`${kind}:`)).length;
  const there = onlyThere.filter((only) => only === kind).length;
  const same = alike.get(kind) ?? 0;
  if (same + otherwise + there === 0) return null;
  return (
    <Note kind={otherwise + there > 0 ? 'look' : 'plain'}>
      {name}: {same} alike
      {otherwise > 0 && (
        <>
          , {otherwise} otherwise or missing there{' '}
          <Button variant="text" onClick={show}>
            Show them
          </Button>
        </>
      )}
      {there > 0 && (
        <>
          , {there} only there{' '}
          <Button variant="text" onClick={() => set({ drawingId: id })}>
            Take {name}
          </Button>
        </>
      )}
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
