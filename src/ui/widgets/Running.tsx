import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';

interface RunningProps {
  /** From 0 to 1. */
  share: number;
  /** Of what it is the share. */
  of: string;
  cancel: () => void;
  doing?: string;
}

/** That something is under way: how much of what is done, and the way to end it. */
export function Running({ share, of, cancel, doing = 'Calculating' }: RunningProps) {
  return (
    <Box role="status" sx={{ mb: 1.5 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
        <span>
          {doing}, <span className="mono">{Math.round(share * 100)} %</span> of {of}
        </span>
        <Button size="small" variant="text" onClick={cancel}>
          Cancel
        </Button>
      </Box>
      <LinearProgress variant="determinate" value={share * 100} aria-label={doing} />
    </Box>
  );
}
