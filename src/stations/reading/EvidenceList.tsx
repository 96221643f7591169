'use client';
import { sectionName } from '@/core/kinds/section';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { scaleLinear } from 'd3';
import type { Candidate } from '@/core/reading/candidate';
import { kinds } from '@/core/kinds/kinds';
import { otherWay, type Answer, type Asked } from '@/core/sorting/answers';
import { nameOfCandidate, type Verdict } from '@/project/readings';
import { factsOf } from './facts';
import { Note, Part } from '@/ui/widgets/Heading';

/**
 * The observations behind one candidate, each with its weight: to the right what speaks for it, to the left against.
 */
export function EvidenceList({
  candidate,
  verdict,
  alike,
  accept,
  reject,
  settle,
}: {
  candidate: Candidate;
  verdict: Verdict;
  /** How many others leave the same open. */
  alike: number;
  accept: () => void;
  reject: () => void;
  /** Has it, and all alike, read the other way. */
  settle: (answer: Answer) => void;
}) {
  const x = scaleLinear([-4, 4], [0, 80]).clamp(true);
  const mm = (metres: number) => (metres * 1000).toFixed(1);
  return (
    <Part title={`Evidence for the ${kinds[candidate.kind].names[0]} ${nameOfCandidate(candidate)}`}>
      {candidate.kind === 'column' && (
        <Box sx={{ mb: 0.75 }}>
          drawn{' '}
          <span className="mono">
            {mm(candidate.raw.width)} {'\u00d7'} {mm(candidate.raw.depth)}
          </span>
          , read as <span className="mono">{sectionName(candidate.element.section)}</span> mm
          {candidate.element.rotation !== 0 && (
            <>
              , turned{' '}
              <span className="mono">
                {candidate.element.rotation.toFixed(2)}
                {'\u00b0'}
              </span>
            </>
          )}
          {candidate.crossing && (
            <>
              , <span className="mono">{mm(candidate.crossing.distance)}</span> mm from {candidate.crossing.name}
            </>
          )}
        </Box>
      )}
      {candidate.kind !== 'column' && candidate.kind !== 'grid' && <Box sx={{ mb: 0.75 }}>{factsOf(candidate)}</Box>}
      {candidate.evidence.map((entry) => (
        <Box
          key={entry.text}
          sx={{
            display: 'grid',
            gridTemplateColumns: '1fr 80px',
            gap: 1,
            alignItems: 'center',
            borderBottom: '1px solid var(--mui-palette-divider)',
            py: 0.5,
          }}
        >
          <span>{entry.text}</span>
          <svg width={80} height={10} role="img" aria-label={`weight ${entry.weight}`}>
            <path d="M40 0v10" stroke="var(--mui-palette-zf-line)" />
            <rect
              x={Math.min(40, x(entry.weight))}
              width={Math.max(1, Math.abs(x(entry.weight) - 40))}
              y={1}
              height={8}
              fill={entry.weight < 0 ? 'var(--mui-palette-zf-amber)' : 'var(--mui-palette-zf-zircon)'}
            />
          </svg>
        </Box>
      ))}
      <Box sx={{ color: 'text.secondary', fontSize: 12, my: 0.75 }}>
        Source: handle{candidate.handles.length > 1 ? 's' : ''}{' '}
        <span className="mono">
          {candidate.handles.slice(0, 8).join(' ')}
          {candidate.handles.length > 8 ? ' \u2026' : ''}
        </span>
      </Box>
      {candidate.asks && <OtherWay asked={candidate.asks} alike={alike} settle={settle} />}
      {verdict === 'open' && (
        <Box sx={{ display: 'flex', gap: 1 }}>
          <Button variant="outlined" onClick={accept}>
            Accept this one
          </Button>
          <Button variant="text" onClick={reject}>
            Reject this one
          </Button>
        </Box>
      )}
    </Part>
  );
}

/** The other way to read a candidate; one answer settles it in the whole drawing. */
function OtherWay({ asked, alike, settle }: { asked: Asked; alike: number; settle: (answer: Answer) => void }) {
  const other = otherWay(asked);
  return (
    <Note kind="plain">
      Read as {asked.take}; it could be {other.take}.{' '}
      <Button variant="text" onClick={() => settle(other)}>
        Read {alike === 0 ? 'it' : `it and ${alike} more like it`} so
      </Button>
    </Note>
  );
}
