'use client';
import { useSnackbar } from 'notistack';
import { useEffect, useRef } from 'react';
import { useFacts } from '@/project/useSession';

/** A problem is shown long enough to be read, milliseconds. */
const problemShown = 12_000;

/** Shows what the session has to tell. */
export function useMessages(): void {
  const { enqueueSnackbar } = useSnackbar();
  const messages = useFacts((facts) => facts.messages);
  const last = useRef(0);
  useEffect(() => {
    for (const message of messages) {
      if (message.key <= last.current) continue;
      last.current = message.key;
      const problem = { variant: 'error', autoHideDuration: problemShown } as const;
      enqueueSnackbar(message.text, message.kind === 'problem' ? problem : {});
    }
  }, [messages, enqueueSnackbar]);
}
