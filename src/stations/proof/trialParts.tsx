import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import type { Finding } from '@/core/proof/finding';
import { Note, Part } from '@/ui/widgets/Heading';

/** That a trial is under way: how much of what is done, and the way to end it. */
export function Running({ share, of, cancel }: { share: number; of: string; cancel: () => void }) {
  return (
    <Box role="status" sx={{ mb: 1.5 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
        <span>
          Calculating, <span className="mono">{Math.round(share * 100)} %</span> of {of}
        </span>
        <Button size="small" variant="text" onClick={cancel}>
          Cancel
        </Button>
      </Box>
      <LinearProgress variant="determinate" value={share * 100} aria-label="Calculating" />
    </Box>
  );
}

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
