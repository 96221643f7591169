'use client';
import Box from '@mui/material/Box';
import type { Candidate } from '@/core/reading/candidate';
import { nameOfCandidate } from '@/project/readings';
import { sizeOf } from './facts';

/** Widths of name and size, by how long these are; what is said of a candidate has the rest. */
const columnsOf: Partial<Record<Candidate['kind'], string>> = {
  grid: '44px 138px',
  wall: '44px 124px',
  slab: '44px 138px',
  zone: '140px 92px',
  outdoor: '140px 92px',
};

/** One candidate in the list: chosen by its box, shown on the board by its name. */
export function CandidateLine({
  candidate,
  said,
  here,
  chosen,
  go,
  toggle,
}: {
  candidate: Candidate;
  /** What the model or another drawing says of it. */
  said: string | null;
  here: boolean;
  chosen: boolean;
  go: () => void;
  toggle: () => void;
}) {
  const name = nameOfCandidate(candidate);
  const size = sizeOf(candidate);
  return (
    <Box
      component="li"
      data-key={candidate.key}
      sx={{
        display: 'grid',
        gridTemplateColumns: '24px 1fr',
        alignItems: 'center',
        borderBottom: '1px solid var(--mui-palette-divider)',
        borderLeft: '3px solid',
        borderLeftColor: here ? 'primary.main' : 'transparent',
        background: here ? 'var(--mui-palette-zf-zirconSoft)' : 'none',
      }}
    >
      <input
        type="checkbox"
        checked={chosen}
        onChange={toggle}
        aria-label={`Choose ${name}`}
        style={{ accentColor: 'var(--mui-palette-zf-zircon)', margin: '0 0 0 4px' }}
      />
      <Box
        component="button"
        type="button"
        onClick={go}
        aria-current={here || undefined}
        sx={{
          all: 'unset',
          cursor: 'pointer',
          display: 'grid',
          gridTemplateColumns: `${columnsOf[candidate.kind] ?? '62px 92px'} 1fr`,
          gap: 1,
          py: 0.5,
          whiteSpace: 'nowrap',
          '&:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)' },
        }}
      >
        <Box component="b" sx={{ overflow: 'hidden', textOverflow: 'ellipsis' }}>
          {candidate.kind === 'zone'
            ? [candidate.element.number, candidate.element.name].filter(Boolean).join(' ') || name
            : name}
        </Box>
        <span className="mono">{size}</span>
        <Box
          component="span"
          sx={{
            color: (said ?? candidate.doubt) ? 'var(--mui-palette-zf-amber)' : 'text.secondary',
            overflow: 'hidden',
            textOverflow: 'ellipsis',
            whiteSpace: 'nowrap',
          }}
          title={said ?? candidate.doubt ?? undefined}
        >
          {said ?? candidate.doubt ?? 'clear'}
        </Box>
      </Box>
    </Box>
  );
}
