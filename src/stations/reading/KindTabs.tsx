'use client';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import type { Candidate } from '@/core/reading/candidate';
import { RoleMark } from '@/ui/widgets/RoleMark';
import { kindWords } from './kindWords';

const markOf = (kind: Candidate['kind']) => (kind === 'opening' ? 'door' : kind);

interface KindTabsProps {
  shown: readonly Candidate['kind'][];
  present: Candidate['kind'];
  turn: (kind: Candidate['kind']) => void;
  countOf: (kind: Candidate['kind']) => number;
}

/** The kinds of candidates, each with its number. */
export function KindTabs({ shown, present, turn, countOf }: KindTabsProps) {
  return (
    <Box role="tablist" aria-label="Kinds" sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, mb: 1.5 }}>
      {shown.map((name) => (
        <ButtonBase
          key={name}
          role="tab"
          aria-selected={present === name}
          onClick={() => turn(name)}
          sx={{
            display: 'flex',
            gap: 0.75,
            px: 0.75,
            py: 0.25,
            border: '1px solid',
            borderColor: present === name ? 'text.primary' : 'divider',
            borderRadius: '4px',
            fontSize: 13,
          }}
        >
          <RoleMark role={markOf(name)} />
          {kindWords[name]} <b className="mono">{countOf(name)}</b>
        </ButtonBase>
      ))}
    </Box>
  );
}
