'use client';
import Box from '@mui/material/Box';
import { useEffect, useRef, useState } from 'react';
import { useStore } from 'zustand';
import { openProject } from '@/project/openProject';
import { closeReadings } from '@/project/readings';
import { useSelected } from '@/project/selected';
import type { Session } from '@/project/session';
import { closeUnderlays } from '@/project/underlays';
import { SessionProvider } from '@/project/useSession';
import { openView } from '@/project/view';
import { TopBar } from '@/ui/shell/TopBar';
import { Desk } from './Desk';
import { Gone } from './Gone';

/** A project: course, bench, board, level ladder and status line. */
export function Workspace({ id }: { id: string }) {
  const { session, problem } = useOpened(id);
  if (problem !== null) return <Gone message={problem} />;
  return session === null ? <Opening /> : <Opened session={session} />;
}

/** The project once it is loaded, or the sentence that says why it is not. */
function useOpened(id: string): { session: Session | null; problem: string | null } {
  const [session, setSession] = useState<Session | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    let here = true;
    Promise.all([openProject(id), openView(id)]).then(
      ([opened]) => {
        if (here) setSession(opened);
      },
      (error: Error) => {
        if (here) setProblem(error.message);
      },
    );
    return () => {
      here = false;
      closeReadings();
      closeUnderlays();
      useSelected.getState().select([]);
    };
  }, [id]);
  return { session, problem };
}

function Opening() {
  return (
    <Box sx={{ minHeight: '100vh', background: 'var(--mui-palette-zf-paper)' }}>
      <TopBar />
      <Box role="note" sx={{ mt: '38vh', textAlign: 'center', color: 'text.secondary', fontSize: 15 }}>
        Opening the project …
      </Box>
    </Box>
  );
}

function Opened({ session }: { session: Session }) {
  useSessionInPage(session);
  const gone = useStore(session.facts, (facts) => facts.gone);
  if (gone !== null) return <Gone message={gone} />;
  return (
    <SessionProvider value={session}>
      <Desk />
    </SessionProvider>
  );
}

/** Listens while the page shows the project, and asks before it is left with steps that nobody has confirmed. */
function useSessionInPage(session: Session): void {
  const asked = useRef((event: BeforeUnloadEvent) => {
    if (session.facts.getState().pending > 0) event.preventDefault();
  });
  useEffect(() => {
    const stop = session.listen();
    const ask = asked.current;
    window.addEventListener('beforeunload', ask);
    return () => {
      stop();
      window.removeEventListener('beforeunload', ask);
    };
  }, [session]);
}
