'use client';
import { useEffect, useRef, useState } from 'react';
import { useStore } from 'zustand';
import { closeReadings } from '@/project/readings';
import { Session, type Snapshot } from '@/project/session';
import { useSelected } from '@/project/selected';
import { closeUnderlays } from '@/project/underlays';
import { SessionProvider } from '@/project/useSession';
import { openView } from '@/project/view';
import { Desk } from './Desk';
import { Gone } from './Gone';

/** A project: course, bench, board, level ladder and status line. */
export function Workspace({ id, snapshot }: { id: string; snapshot: Snapshot }) {
  const [session] = useState(() => new Session(id, snapshot));
  const [ready, setReady] = useState(false);
  useSessionInPage(session);
  useEffect(() => {
    let here = true;
    void openView(id).then(() => {
      if (here) setReady(true);
    });
    return () => {
      here = false;
      closeReadings();
      closeUnderlays();
      useSelected.getState().select([]);
    };
  }, [id]);
  const gone = useStore(session.facts, (facts) => facts.gone);
  if (gone !== null) return <Gone message={gone} />;
  return <SessionProvider value={session}>{ready ? <Desk /> : null}</SessionProvider>;
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
