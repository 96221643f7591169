import { EventEmitter } from 'node:events';
import pg from 'pg';
import { settings } from './settings';

/** What processes tell one another through the database. */
export type Notice = { project: string; version: number } | { project: string; intake: string };

interface Listening {
  emitter: EventEmitter;
  started: boolean;
}
const shared = globalThis as { zirconListening?: Listening };

function listening(): Listening {
  shared.zirconListening ??= { emitter: new EventEmitter().setMaxListeners(0), started: false };
  if (!shared.zirconListening.started) {
    shared.zirconListening.started = true;
    void listen(shared.zirconListening.emitter);
  }
  return shared.zirconListening;
}

/** Keeps one connection on LISTEN; after a break every subscriber is told to look for itself. */
async function listen(emitter: EventEmitter): Promise<void> {
  for (;;) {
    const client = new pg.Client({ connectionString: settings.databaseUrl });
    try {
      await client.connect();
      client.on('notification', (message) => {
        const notice = JSON.parse(message.payload ?? '{}') as Notice;
        emitter.emit(notice.project, notice);
      });
      await client.query('listen zircon');
      emitter.emit('again');
      await new Promise<void>((resolve) => {
        client.on('error', () => resolve());
        client.on('end', () => resolve());
      });
    } catch {
      /* The database is away; the next attempt follows. */
    }
    await client.end().catch(() => undefined);
    await new Promise((resolve) => setTimeout(resolve, 1000));
  }
}

/**
 * Hears what happens to a project. `again` comes after a break in which something may have been missed.
 * @returns the way to stop
 */
export function subscribe(project: string, hear: (notice: Notice | 'again') => void): () => void {
  const { emitter } = listening();
  const again = () => hear('again');
  emitter.on(project, hear);
  emitter.on('again', again);
  return () => {
    emitter.off(project, hear);
    emitter.off('again', again);
  };
}
