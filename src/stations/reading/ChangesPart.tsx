'use client';
import { pointsOf } from '@/core/kinds/kinds';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { apart, keepAsTheyAre, takeChanges, type SourceChange } from '@/core/decisions/revise';
import type { DrawingRow } from '@/core/model/state';
import type { Candidate } from '@/core/reading/candidate';
import { kinds } from '@/core/kinds/kinds';
import { useBoard } from '@/board/boardStore';
import { nameOfCandidate } from '@/project/readings';
import { useCommit } from '@/project/useSession';
import { Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';
import { sizeOf } from './facts';

/** What changed, in a few words. */
function wordsOf({ element, candidate }: SourceChange): string {
  if (candidate === null) return 'is gone from the drawing';
  const by = apart(element, candidate);
  if (by > 0.0005) return `moved by ${(by * 1000).toFixed(0)} mm`;
  if (element.kind === 'zone' && candidate.kind === 'zone' && element.shape.name !== candidate.element.name)
    return `is called ${candidate.element.name || 'nothing'} now, not ${element.shape.name}`;
  return `is ${sizeOf(candidate)} now`;
}

/** What tells an element from the others of its kind, where its kind has such a thing. */
function ownName(element: SourceChange['element']): string {
  if (element.kind === 'grid') return element.shape.label;
  return element.kind === 'zone' ? element.shape.number : '';
}

const nameOf = ({ element, candidate }: SourceChange): string => {
  if (candidate !== null) return `${kinds[element.kind].names[0]} ${nameOfCandidate(candidate)}`;
  return `${kinds[element.kind].names[0]} ${ownName(element)}`.trim();
};

/** Accepted elements whose source the drawing shows otherwise now: each change is taken or refused. */
export function ChangesPart({
  drawing,
  changes,
  candidates,
  fresh,
}: {
  drawing: DrawingRow;
  changes: readonly SourceChange[];
  candidates: readonly Candidate[];
  /** Candidates that nobody has judged. */ fresh: number;
}) {
  const commit = useCommit();
  const look = ({ element }: SourceChange) => {
    const points = pointsOf(element);
    if (points.length === 0) return;
    const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
    useBoard.getState().lookAt([Math.min(...xs) - 3, Math.min(...ys) - 3, Math.max(...xs) + 3, Math.max(...ys) + 3]);
  };
  return (
    <Part title={`Reads otherwise than what was accepted: ${changes.length}`}>
      <Box sx={{ maxHeight: 220, overflowY: 'auto' }}>
        <Table label="Reads otherwise" heads={['element', 'what', 'then']}>
          {changes.slice(0, 300).map((change) => (
            <tr key={change.decision.id}>
              <td>
                <Button variant="text" onClick={() => look(change)}>
                  {nameOf(change)}
                </Button>
              </td>
              <td>{wordsOf(change)}</td>
              <td style={{ whiteSpace: 'nowrap' }}>
                <Button
                  variant="text"
                  aria-label={`Take ${nameOf(change)}`}
                  onClick={() =>
                    void commit((now) => takeChanges(now, drawing, [change], candidates, () => crypto.randomUUID()))
                  }
                >
                  Take
                </Button>
                <Button
                  variant="text"
                  aria-label={`Keep ${nameOf(change)}`}
                  onClick={() => void commit(() => keepAsTheyAre(drawing, [change]))}
                >
                  Keep
                </Button>
              </td>
            </tr>
          ))}
        </Table>
      </Box>
      <Box sx={{ display: 'flex', gap: 1, mt: 1 }}>
        <Button
          variant="contained"
          onClick={() =>
            void commit((now) => takeChanges(now, drawing, changes, candidates, () => crypto.randomUUID()))
          }
        >
          Take all {changes.length}
        </Button>
        <Button variant="outlined" onClick={() => void commit(() => keepAsTheyAre(drawing, changes))}>
          Keep all as they are
        </Button>
      </Box>
      {fresh > 0 && (
        <Box sx={{ mt: 1 }}>
          {fresh === 1 ? '1 candidate is' : `${fresh} candidates are`} new or not judged yet; judge{' '}
          {fresh === 1 ? 'it' : 'them'} below.
        </Box>
      )}
    </Part>
  );
}
