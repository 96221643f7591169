'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { Unread } from '@/core/reading/candidate';
import { Part } from '@/ui/widgets/Heading';

interface UnreadProps {
  unread: readonly Unread[];
  /** How many lines have the role. */
  drawn: number;
  show: (() => void) | null;
}

/** Unread lines told one by one; of the others their number. */
const unreadTold = 12;

/** What lies on the role and was not understood. */
export function UnreadPart({ unread, drawn, show }: UnreadProps) {
  const lines = unread.filter(({ words }) => words === undefined).length;
  return (
    <Part
      title={`Drawn on this role but not read: ${unread.length}`}
      aside={
        show && (
          <Button variant="text" onClick={show}>
            Show them
          </Button>
        )
      }
    >
      {drawn > 0 && (
        <Box sx={{ mb: 0.5 }}>
          {Math.round((100 * (drawn - lines)) / drawn)} % of {drawn} lines are accounted for.
        </Box>
      )}
      <Box component="ul" sx={{ m: 0, pl: 2 }}>
        {unread.slice(0, unreadTold).map((entry, i) => (
          <li key={i}>
            {entry.words !== undefined && `\u201c${entry.words}\u201d: `}
            {entry.why} (handle <span className="mono">{entry.handle}</span>)
          </li>
        ))}
      </Box>
      {unread.length > unreadTold && <Box sx={{ color: 'text.secondary' }}>and {unread.length - unreadTold} more</Box>}
    </Part>
  );
}
