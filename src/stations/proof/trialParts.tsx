import Box from '@mui/material/Box';
import type { Finding } from '@/core/proof/finding';
import { Note, Part } from '@/ui/widgets/Heading';

/** That what is shown is of an older model. */
export const StaleNote = () => (
  <Note kind="look">The model has changed since: these are results of the model as it was.</Note>
);

/** More findings than this are counted. */
const mostTold = 8;

/** What a trial found; nothing where it found nothing. */
export function FoundPart({ findings }: { findings: readonly Finding[] }) {
  if (findings.length === 0) return null;
  return (
    <Part title={`Found on the way: ${findings.length}`}>
      {findings.slice(0, mostTold).map(({ message, remedy, severity }, i) => (
        <Note key={i} kind={severity === 'error' ? 'wrong' : 'look'}>
          {message} <Box sx={{ color: 'text.secondary', fontSize: 12 }}>{remedy}</Box>
        </Note>
      ))}
      {findings.length > mostTold && <Box>and {findings.length - mostTold} more</Box>}
    </Part>
  );
}

/** What a trial took for granted. */
export const AssumedPart = ({ assumed }: { assumed: readonly string[] }) => (
  <Part title="Taken for granted">
    <Box component="ul" sx={{ m: 0, pl: 2 }}>
      {assumed.map((sentence) => (
        <li key={sentence}>{sentence}</li>
      ))}
    </Box>
  </Part>
);
