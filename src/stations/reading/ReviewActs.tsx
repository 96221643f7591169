'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { Candidate } from '@/core/reading/candidate';
import type { Verdict } from '@/project/readings';

interface ReviewActsProps {
  verdict: Verdict;
  /** What the first button is about. */
  acted: Candidate[];
  picked: Candidate[];
  /** Of all kinds. */
  everything: Candidate[];
  doubtful: number;
  accept: (candidates: Candidate[]) => void;
  reject: (candidates: Candidate[]) => void;
  reopen: (candidates: Candidate[]) => void;
  nextDoubtful: () => void;
}

/** What can be done with the candidates listed. */
export function ReviewActs({
  verdict,
  acted,
  picked,
  everything,
  doubtful,
  accept,
  reject,
  reopen,
  nextDoubtful,
}: ReviewActsProps) {
  if (verdict !== 'open')
    return (
      <Box sx={actsStyle}>
        <Button variant="outlined" disabled={acted.length === 0} onClick={() => reopen(acted)}>
          Judge {acted.length} again
        </Button>
      </Box>
    );
  return (
    <Box sx={actsStyle}>
      <Button variant="contained" disabled={acted.length === 0} onClick={() => accept(acted)}>
        Accept {acted.length}
        {picked.length > 0 ? ' chosen' : ''}
      </Button>
      {everything.length > acted.length && picked.length === 0 && (
        <Button variant="outlined" onClick={() => accept(everything)}>
          Accept {everything.length} of all kinds
        </Button>
      )}
      <Button variant="outlined" disabled={doubtful === 0} onClick={nextDoubtful}>
        Next doubtful
      </Button>
      {picked.length > 0 && (
        <Button variant="text" onClick={() => reject(picked)}>
          Reject {picked.length}
        </Button>
      )}
    </Box>
  );
}

const actsStyle = { display: 'flex', gap: 0.75, flexWrap: 'wrap', mb: 2, '& .MuiButton-root': { px: 1.1 } } as const;
