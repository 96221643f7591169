'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Popover from '@mui/material/Popover';
import TextField from '@mui/material/TextField';
import Tooltip from '@mui/material/Tooltip';
import { useState, type FormEvent } from 'react';
import { flushSync } from 'react-dom';
import type { ViewRow } from '@/core/model/look';
import type { Model } from '@/core/model/model';
import { forgetView, giveKey, keepView, viewsOf } from '@/core/model/views';
import { useBoard } from '@/board/boardStore';
import { viewKeyRefusal } from '@/project/keys';
import { lookAgain, lookHere } from '@/project/looks';
import { useCommit, useModel, useSession } from '@/project/useSession';
import { Icon } from '@/ui/widgets/Icon';

/** Looks at what a view has kept. */
export function recallView(model: Model, { look }: ViewRow): void {
  let camera: ReturnType<typeof lookAgain> = null;
  // What is seen has to be there before the camera can look at it.
  flushSync(() => {
    camera = lookAgain(model, look);
  });
  if (camera !== null) useBoard.getState().lookAt(camera);
}

/** The views that have a name: recalled by a click or by their key, kept, given keys, deleted. */
export function ViewsMenu() {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <Tooltip title="Views">
        <IconButton
          aria-label="Views"
          aria-haspopup="dialog"
          onClick={(event) => setAnchor(event.currentTarget)}
          sx={{
            position: 'absolute',
            top: 8,
            right: 90,
            background: 'var(--mui-palette-zf-panel)',
            border: '1px solid var(--mui-palette-divider)',
          }}
        >
          <Icon name="bookmark" />
        </IconButton>
      </Tooltip>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
        transformOrigin={{ vertical: 'top', horizontal: 'right' }}
        slotProps={{ paper: { role: 'dialog', 'aria-label': 'Views' } }}
      >
        <Views close={() => setAnchor(null)} />
      </Popover>
    </>
  );
}

function Views({ close }: { close: () => void }) {
  const model = useModel('view', 'drawing', 'level');
  const views = viewsOf(model);
  return (
    <Box sx={{ p: 1.5, width: 340 }}>
      {views.length === 0 && (
        <Box sx={{ color: 'text.secondary', mb: 1 }}>
          No view is kept yet. A view is the drawings and layers that are seen, the level, the place and, in space, the
          look and the cut; everybody in the project has it.
        </Box>
      )}
      {views.map((row) => (
        <ViewLine key={row.id} row={row} close={close} />
      ))}
      <KeepForm />
    </Box>
  );
}

function ViewLine({ row, close }: { row: ViewRow; close: () => void }) {
  const { model } = useSession();
  const commit = useCommit();
  const [problem, setProblem] = useState<string | null>(null);
  const give = (key: string | null) => {
    const refusal = key === null ? null : viewKeyRefusal(key);
    setProblem(refusal);
    if (refusal === null && key !== row.key) void commit((now) => giveKey(now, row, key));
  };
  return (
    <Box sx={{ borderBottom: '1px solid var(--mui-palette-divider)', py: 0.25 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.5 }}>
        <Button
          variant="text"
          onClick={() => {
            close();
            recallView(model, row);
          }}
          sx={{ flex: 1, minWidth: 0, justifyContent: 'flex-start', overflow: 'hidden', textOverflow: 'ellipsis' }}
        >
          {row.name}
        </Button>
        <KeyField name={row.name} value={row.key} give={give} />
        <IconButton aria-label={`Delete view ${row.name}`} onClick={() => void commit(() => forgetView(row))}>
          <Icon name="close" />
        </IconButton>
      </Box>
      {problem !== null && (
        <Box role="alert" sx={{ color: 'var(--mui-palette-zf-clay)', fontSize: 12 }}>
          {problem}
        </Box>
      )}
    </Box>
  );
}

/** One letter; Delete and Backspace take it away. */
function KeyField({ name, value, give }: { name: string; value: string | null; give: (key: string | null) => void }) {
  return (
    <TextField
      size="small"
      placeholder="key"
      value={value?.toUpperCase() ?? ''}
      slotProps={{ htmlInput: { 'aria-label': `Key of view ${name}`, className: 'mono', style: { width: 26 } } }}
      onChange={() => undefined}
      onKeyDown={(event) => {
        if (event.key === 'Backspace' || event.key === 'Delete') give(null);
        else if (event.key.length === 1 && !event.ctrlKey && !event.metaKey) give(event.key.toLowerCase());
      }}
    />
  );
}

function KeepForm() {
  const { model } = useSession();
  const commit = useCommit();
  const [called, setCalled] = useState('');
  const keep = (event: FormEvent) => {
    event.preventDefault();
    if (called.trim() === '') return;
    void commit((now) => keepView(now, called, lookHere(model), () => crypto.randomUUID()));
    setCalled('');
  };
  return (
    <Box component="form" onSubmit={keep} sx={{ display: 'flex', gap: 1, mt: 1 }}>
      <TextField
        size="small"
        label="Name of this view"
        value={called}
        onChange={(event) => setCalled(event.target.value)}
        slotProps={{ htmlInput: { maxLength: 120 } }}
        sx={{ flex: 1 }}
      />
      <Button type="submit" variant="outlined" disabled={called.trim() === ''}>
        Keep
      </Button>
    </Box>
  );
}
