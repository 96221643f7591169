'use client';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import dayjs from 'dayjs';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { useGuide } from '@/project/guide';
import { keyOf, shownKey } from '@/project/keys';
import { useSession, useFacts, useProjectRow } from '@/project/useSession';
import { useView } from '@/project/view';
import { Icon, Mark } from '@/ui/widgets/Icon';
import { useScheme } from '@/ui/widgets/useScheme';

/** The bar above everything: where one is, what to do, whether it is saved. */
export function TopBar({ search, others }: { search?: ReactNode; others?: ReactNode }) {
  const { dark, toggle } = useScheme();
  return (
    <Box
      component="header"
      sx={{
        height: 44,
        flex: 'none',
        display: 'grid',
        gridTemplateColumns: '1fr minmax(200px, 320px) 1fr',
        alignItems: 'center',
        gap: 2,
        px: 1.5,
        background: 'var(--mui-palette-zf-panel)',
        borderBottom: '1px solid var(--mui-palette-divider)',
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.25, minWidth: 0 }}>
        <Box
          component={Link}
          href="/"
          aria-label="Zircon Frame, all projects"
          sx={{
            display: 'flex',
            alignItems: 'center',
            gap: 1,
            color: 'text.primary',
            textDecoration: 'none',
            fontWeight: 700,
            whiteSpace: 'nowrap',
            '& svg': { color: 'primary.main' },
          }}
        >
          <Mark />
          Zircon Frame
        </Box>
        {search !== undefined && <ProjectName />}
      </Box>
      {search ?? <span />}
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'flex-end', gap: 0.5 }}>
        {others}
        {search !== undefined && <History />}
        {search !== undefined && <GuideButton />}
        <Tooltip title={dark ? 'Light colours' : 'Dark colours'}>
          <IconButton aria-label={dark ? 'Light colours' : 'Dark colours'} onClick={toggle}>
            <Icon name={dark ? 'light' : 'dark'} />
          </IconButton>
        </Tooltip>
      </Box>
    </Box>
  );
}

function GuideButton() {
  const open = useGuide((guide) => guide.open);
  const station = useView((view) => view.station);
  return (
    <Tooltip title={`Guide and keys (${shownKey(keyOf('guide'))})`}>
      <IconButton aria-label="Guide and keys" onClick={() => open(station)}>
        <Icon name="guide" />
      </IconButton>
    </Tooltip>
  );
}

function ProjectName() {
  const name = useProjectRow().name;
  return (
    <Box
      component="h1"
      sx={{
        m: 0,
        fontSize: 13,
        fontWeight: 400,
        color: 'text.secondary',
        borderLeft: '1px solid var(--mui-palette-divider)',
        pl: 1.25,
        overflow: 'hidden',
        textOverflow: 'ellipsis',
        whiteSpace: 'nowrap',
      }}
    >
      {name}
    </Box>
  );
}

function History() {
  const { undo, redo, mayEdit } = useSession();
  const history = useFacts((facts) => facts.history);
  const connection = useFacts((facts) => facts.connection);
  const pending = useFacts((facts) => facts.pending);
  const step = (way: 'undo' | 'redo', label: string | null, run: () => Promise<boolean>) => {
    const text = label === null ? `Nothing to ${way}` : `${way === 'undo' ? 'Undo' : 'Redo'}: ${label}`;
    return (
      <Tooltip title={text}>
        <span>
          <IconButton aria-label={text} disabled={label === null} onClick={() => void run()}>
            <Icon name={way} />
          </IconButton>
        </span>
      </Tooltip>
    );
  };
  let state;
  if (connection === 'away') state = 'Server away \u2013 trying';
  else if (pending > 0) state = 'Saving \u2026';
  else if (history.held !== null) state = 'Held as it is';
  else if (history.savedAt) state = `Saved ${dayjs(history.savedAt).format('HH:mm')}`;
  else state = '';

  return (
    <>
      <Box
        role="status"
        sx={{
          color: connection === 'away' ? 'var(--mui-palette-zf-clay)' : 'text.secondary',
          whiteSpace: 'nowrap',
          mr: 0.5,
        }}
      >
        {state}
      </Box>
      {mayEdit && step('undo', history.undo, undo)}
      {mayEdit && step('redo', history.redo, redo)}
    </>
  );
}
