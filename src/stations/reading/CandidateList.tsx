'use client';
import Box from '@mui/material/Box';
import { useEffect, useRef } from 'react';
import type { Candidate } from '@/core/reading/candidate';
import { CandidateLine } from './CandidateLine';
import type { Told } from './filters';

/** Lines of the list at once: more take a moment to be made, and nobody reads them. */
const shownAtOnce = 150;

interface CandidateListProps {
  label: string;
  listed: readonly Candidate[];
  told: Told;
  pointed: string | null;
  chosen: ReadonlySet<string>;
  /** Pixels; the rest scrolls. */
  /** A length of CSS. */
  height: string;
  go: (candidate: Candidate) => void;
  toggle: (key: string) => void;
}

/** The candidates listed, those about the one that is pointed at; it comes into view. */
export function CandidateList({ label, listed, told, pointed, chosen, height, go, toggle }: CandidateListProps) {
  const list = useRef<HTMLUListElement>(null);
  const at =
    pointed === null
      ? 0
      : Math.max(
          0,
          listed.findIndex(({ key }) => key === pointed),
        );
  const first = Math.floor(at / shownAtOnce) * shownAtOnce;
  const after = Math.max(0, listed.length - first - shownAtOnce);
  useEffect(() => {
    if (pointed !== null)
      list.current?.querySelector(`[data-key="${CSS.escape(pointed)}"]`)?.scrollIntoView({ block: 'nearest' });
  }, [pointed]);
  return (
    <Box
      component="ul"
      ref={list}
      aria-label={label}
      sx={{ listStyle: 'none', m: 0, mb: 1.5, p: 0, maxHeight: height, overflowY: 'auto' }}
    >
      {first > 0 && <Remark>{first.toLocaleString('en')} before these</Remark>}
      {listed.slice(first, first + shownAtOnce).map((candidate) => (
        <CandidateLine
          key={candidate.key}
          candidate={candidate}
          said={told.conflicts.get(candidate.key) ?? told.unlike.get(candidate.key) ?? null}
          here={candidate.key === pointed}
          chosen={chosen.has(candidate.key)}
          go={() => go(candidate)}
          toggle={() => toggle(candidate.key)}
        />
      ))}
      {after > 0 && <Remark>and {after.toLocaleString('en')} more; narrow them down to see them</Remark>}
      {listed.length === 0 && <Remark>None.</Remark>}
    </Box>
  );
}

function Remark({ children }: { children: React.ReactNode }) {
  return (
    <Box component="li" sx={{ color: 'text.secondary', py: 0.75 }}>
      {children}
    </Box>
  );
}
