'use client';
import Box from '@mui/material/Box';
import { Suspense, useEffect, useRef, useState } from 'react';
import { useStore } from 'zustand';
import { ApiError, Unreachable } from '@/project/api';
import { closeComparisons } from '@/project/comparisons';
import { closeFindings } from '@/project/findings';
import { closeHeat } from '@/project/heat';
import { closeLight } from '@/project/light';
import { closeMirror } from '@/project/mirror';
import { askEarly, openProject } from '@/project/openProject';
import { closeReadings } from '@/project/readings';
import { useSelected } from '@/project/selected';
import type { Session } from '@/project/session';
import { closeUnderlays } from '@/project/underlays';
import { SessionProvider } from '@/project/useSession';
import { useKeys } from '@/project/keys';
import { useTracing } from '@/project/tracing';
import { openView } from '@/project/view';
import { TopBar } from '@/ui/shell/TopBar';
import { Gone } from './Gone';
import { later } from './later';

/** The desk holds all that draws, and comes while the project does. */
const desk = later(async () => (await import('./Desk')).Desk);
// In the browser both are asked for before the page has come to life.
if (typeof window !== 'undefined') {
  desk.ready();
  askEarly(window.location.pathname);
}

/** A project: course, bench, board, level ladder and status line. */
export function Workspace({ id }: { id: string }) {
  const { session, gone, waiting } = useOpened(id);
  if (gone !== null) return <Gone message={gone} />;
  return session === null ? <Opening waiting={waiting} /> : <OpenProject session={session} />;
}

/** The project once it is loaded; or that it is not there, or what is waited for. */
interface Opened {
  session: Session | null;
  gone: string | null;
  waiting: string | null;
}

/** While the server is away it is asked again after this long, milliseconds. */
const askedAgainAfter = 1500;

function useOpened(id: string): Opened {
  const [opened, setOpened] = useState<Opened>({ session: null, gone: null, waiting: null });
  useEffect(() => {
    void useTracing.persist.rehydrate();
    void useKeys.persist.rehydrate();
  }, []);
  useEffect(() => {
    let here = true;
    let timer: number | undefined;
    const open = async () => {
      try {
        const [session] = await Promise.all([openProject(id), openView(id)]);
        if (here) setOpened({ session, gone: null, waiting: null });
      } catch (error) {
        if (!here) return;
        const { message } = error as Error;
        const away = error instanceof Unreachable || (error instanceof ApiError && error.status === 503);
        setOpened({ session: null, gone: away ? null : message, waiting: away ? message : null });
        if (away) timer = window.setTimeout(() => void open(), askedAgainAfter);
      }
    };
    void open();
    return () => {
      window.clearTimeout(timer);
      here = false;
      closeReadings();
      closeUnderlays();
      closeMirror();
      closeFindings();
      closeComparisons();
      closeHeat();
      closeLight();
      useSelected.getState().select([]);
    };
  }, [id]);
  return opened;
}

function Opening({ waiting }: { waiting: string | null }) {
  return (
    <Box sx={{ minHeight: '100vh', background: 'var(--mui-palette-zf-paper)' }}>
      <TopBar />
      <Box
        role={waiting === null ? 'note' : 'alert'}
        sx={{ mt: '38vh', mx: 'auto', maxWidth: 520, textAlign: 'center', color: 'text.secondary', fontSize: 15 }}
      >
        {waiting ?? 'Opening the project \u2026'}
      </Box>
    </Box>
  );
}

function OpenProject({ session }: { session: Session }) {
  useSessionInPage(session);
  const gone = useStore(session.facts, (facts) => facts.gone);
  if (gone !== null) return <Gone message={gone} />;
  return (
    <SessionProvider value={session}>
      <Suspense fallback={<Opening waiting={null} />}>
        <desk.Part />
      </Suspense>
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
