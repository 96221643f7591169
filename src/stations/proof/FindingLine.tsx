import { elementOf } from '@/core/resolved/elementOf';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState, type FormEvent } from 'react';
import { acceptFinding, reopenFinding, type Judged } from '@/core/proof/acceptances';
import type { Finding, Fix, Severity } from '@/core/proof/finding';
import { saySupports } from '@/core/structure/rules/supportsUnderFeet';
import { moveElements } from '@/core/tracing/moved';
import { removeElements } from '@/core/tracing/removed';
import { missingSupportsIn } from '@/project/trial';
import { useCommit, useMayEdit, useSession } from '@/project/useSession';

/** The colour of how grave something is. */
const colours: Record<Severity, string> = { error: 'clay', warning: 'amber', note: 'ink2' };

interface LineProps {
  judged: Judged;
  here: boolean;
  press: () => void;
}

/** A finding with what to do; where it is looked at, the ways to put it right, to accept it, or to open it again. */
export function FindingLine({ judged: { finding, accepted }, here, press }: LineProps) {
  const { severity, message, remedy } = finding;
  const mayEdit = useMayEdit();
  const shade = accepted === null ? colours[severity] : 'line';
  return (
    <Box
      sx={{
        borderLeft: `3px solid var(--mui-palette-zf-${shade})`,
        borderBottom: '1px solid var(--mui-palette-divider)',
        background: here ? 'var(--mui-palette-zf-zirconSoft)' : 'none',
      }}
    >
      <Box component="button" type="button" aria-current={here || undefined} onClick={press} sx={buttonStyle}>
        <Box>{message}</Box>
        <Box sx={{ color: here ? 'text.primary' : 'text.secondary', fontSize: 12 }}>
          {accepted === null ? remedy : `Accepted: ${accepted.reason}`}
        </Box>
      </Box>
      {here && mayEdit && <Acts judged={{ finding, accepted }} />}
    </Box>
  );
}

function Acts({ judged: { finding, accepted } }: { judged: Judged }) {
  const commit = useCommit();
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState('');
  const accept = (event: FormEvent) => {
    event.preventDefault();
    if (reason.trim() === '') return;
    void commit(() => acceptFinding(finding, reason.trim(), () => crypto.randomUUID()));
    setAsking(false);
  };
  if (accepted !== null)
    return (
      <Box sx={rowStyle}>
        <Button size="small" variant="outlined" onClick={() => void commit(() => reopenFinding(accepted))}>
          Open again
        </Button>
      </Box>
    );
  if (asking)
    return (
      <Box component="form" onSubmit={accept} sx={rowStyle}>
        <TextField
          autoFocus
          size="small"
          placeholder="Why it may stay"
          value={reason}
          onChange={(event) => setReason(event.target.value)}
          slotProps={{ htmlInput: { 'aria-label': 'Why it may stay', maxLength: 500 } }}
          sx={{ flex: 1 }}
        />
        <Button size="small" type="submit" variant="contained" disabled={reason.trim() === ''}>
          Accept
        </Button>
        <Button size="small" variant="text" onClick={() => setAsking(false)}>
          Cancel
        </Button>
      </Box>
    );
  return (
    <Box sx={rowStyle}>
      {finding.fix !== undefined && <FixButton finding={finding} fix={finding.fix} />}
      <Button size="small" variant="outlined" onClick={() => setAsking(true)}>
        Accept with a reason
      </Button>
    </Box>
  );
}

/** Puts a finding right where its rule is certain how; one step, that can be undone. */
function FixButton({ finding: { rule, elements }, fix }: { finding: Finding; fix: Fix }) {
  const { model } = useSession();
  const commit = useCommit();
  const put = async () => {
    if ('delete' in fix) {
      const ids = fix.delete.map(elementOf);
      void commit((now) => ({ ...removeElements(now, ids), label: `${fix.words}: ${rule}` }));
      return;
    }
    if ('move' in fix) {
      void commit((now) => moveElements(now, elements.map(elementOf), fix.move));
      return;
    }
    const missing = await missingSupportsIn(model);
    void commit((now) => saySupports(now, missing, () => crypto.randomUUID()));
  };
  return (
    <Button size="small" variant="contained" onClick={() => void put()}>
      {fix.words}
    </Button>
  );
}

const buttonStyle = {
  display: 'block',
  width: '100%',
  textAlign: 'left',
  font: 'inherit',
  color: 'inherit',
  cursor: 'pointer',
  border: 0,
  background: 'none',
  px: 1,
  py: 0.75,
} as const;
const rowStyle = { display: 'flex', gap: 0.75, flexWrap: 'wrap', px: 1, pb: 1 } as const;
