'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useCallback, useEffect, useState } from 'react';
import { counted } from '@/core/model/counted';
import { api } from '@/project/api';
import { windowId } from '@/project/windowId';
import { useFacts, useSession } from '@/project/useSession';
import { Part } from '@/ui/widgets/Heading';

/** An edit of the log; it is the project as it was after it. */
interface PastEdit {
  seq: number;
  label: string;
  at: string;
  window: string | null;
  person: string | null;
  rows: number;
  mark: string | null;
}

const whose = (window: string | null): string => {
  if (window === null) return '';
  return window === windowId() ? 'this window' : 'another window';
};

const when = (at: string): string =>
  new Date(at).toLocaleString('en-GB', { day: '2-digit', month: 'short', hour: '2-digit', minute: '2-digit' });

/** The edits of the project, the newest first: marked with names, and gone back to. */
export function HistoryPart() {
  const session = useSession();
  const version = useFacts((facts) => facts.history.version);
  const { edits, more, problem, again } = usePast(session.id, version);
  const [marking, setMarking] = useState<number | null>(null);
  const mark = async (seq: number, name: string) => {
    setMarking(null);
    try {
      await api(`/api/projects/${session.id}/past`, { json: { seq, mark: name }, method: 'PUT' });
    } catch (error) {
      session.tell({ kind: 'problem', text: (error as Error).message });
    }
    again();
  };
  return (
    <Part title="What was done, the newest first">
      {problem !== null && <Box role="alert">{problem}</Box>}
      {edits.length === 0 && problem === null && <Box sx={{ color: 'text.secondary' }}>Nothing yet.</Box>}
      <Box component="ol" aria-label="Edits" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {edits.map((edit, i) => (
          <Box component="li" key={edit.seq} sx={lineStyle}>
            {edit.mark !== null && <Box sx={markStyle}>{edit.mark}</Box>}
            <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1 }}>
              <span>{edit.label}</span>
              <Box component="span" className="mono" sx={{ fontSize: 12, whiteSpace: 'nowrap' }}>
                {when(edit.at)}
              </Box>
            </Box>
            <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', color: 'text.secondary', fontSize: 12 }}>
              <span>
                {[counted(edit.rows, 'row'), edit.person ?? '', whose(edit.window)].filter(Boolean).join(', ')}
              </span>
              <Box sx={{ flex: 1 }} />
              <Button size="small" variant="text" onClick={() => setMarking(marking === edit.seq ? null : edit.seq)}>
                {edit.mark === null ? 'Name' : 'Rename'}
              </Button>
              {i > 0 && (
                <Button
                  size="small"
                  variant="text"
                  onClick={() => void session.goBack(edit.seq, edit.mark ?? edit.label)}
                >
                  Go back here
                </Button>
              )}
            </Box>
            {marking === edit.seq && <MarkField mark={edit.mark ?? ''} take={(name) => void mark(edit.seq, name)} />}
          </Box>
        ))}
      </Box>
      {more !== null && (
        <Button size="small" variant="text" onClick={more}>
          Earlier ones
        </Button>
      )}
    </Part>
  );
}

/** The list, as far as it was asked for; it is asked for anew when the project moves on. */
function usePast(project: string, version: number) {
  const [edits, setEdits] = useState<PastEdit[]>([]);
  const [whole, setWhole] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const load = useCallback(
    async (before: number | null) => {
      try {
        const query = before === null ? '' : `?before=${before}`;
        const answer = await api<{ edits: PastEdit[] }>(`/api/projects/${project}/past${query}`);
        setEdits((known) => (before === null ? answer.edits : [...known, ...answer.edits]));
        setWhole(answer.edits.length < 100);
        setProblem(null);
      } catch (error) {
        setProblem((error as Error).message);
      }
    },
    [project],
  );
  useEffect(() => {
    // eslint-disable-next-line react-hooks/set-state-in-effect -- what the server has is fetched, not derived
    void load(null);
  }, [load, version]);
  const last = edits[edits.length - 1];
  return {
    edits,
    problem,
    again: () => void load(null),
    more: whole || last === undefined ? null : () => void load(last.seq),
  };
}

function MarkField({ mark, take }: { mark: string; take: (name: string) => void }) {
  const [text, setText] = useState(mark);
  return (
    <Box
      component="form"
      onSubmit={(event) => {
        event.preventDefault();
        take(text.trim());
      }}
      sx={{ display: 'flex', gap: 1, pt: 0.75 }}
    >
      <TextField
        size="small"
        fullWidth
        autoFocus
        label="Name of this point"
        placeholder="before revision C"
        value={text}
        onChange={(event) => setText(event.target.value)}
        slotProps={{ htmlInput: { maxLength: 120 } }}
      />
      <Button type="submit" variant="outlined">
        Keep
      </Button>
    </Box>
  );
}

const lineStyle = { borderBottom: '1px solid var(--mui-palette-divider)', py: 0.75 } as const;

const markStyle = {
  display: 'inline-block',
  px: 0.75,
  mb: 0.25,
  borderRadius: '3px',
  background: 'var(--mui-palette-zf-zirconSoft)',
  fontSize: 12,
  fontWeight: 600,
} as const;
