import { EventEmitter } from 'node:events';
import pg from 'pg';
import type { Here } from '@/core/here';
import { settings } from './settings';

/** What processes tell one another through the database. */
export type Notice =
  | { project: string; version: number }
  | { project: string; intake: string }
  | { project: string; job: string }
  | { project: string; here: Here }
  | { project: string; left: string };

interface Listening {
  emitter: EventEmitter;
  /** The connection that listens, while there is one. */
  client: pg.Client | null;
  ended: boolean;
}
const shared = globalThis as { zirconListening?: Listening; zirconStreams?: Set<() => void> };

/** The streams of events that this process holds open, by the ways to end them. */
const streams = (): Set<() => void> => (shared.zirconStreams ??= new Set());

/** A stream is open until whoever opened it ends it, or the process ends. @returns the way to forget it */
export function holdStream(end: () => void): () => void {
  streams().add(end);
  return () => streams().delete(end);
}

/** Ends all streams, so that windows go on at another server. */
export function endStreams(): void {
  for (const end of [...streams()]) end();
}

function listening(): Listening {
  if (shared.zirconListening === undefined) {
    shared.zirconListening = { emitter: new EventEmitter().setMaxListeners(0), client: null, ended: false };
    void listen(shared.zirconListening);
  }
  return shared.zirconListening;
}

/** Listens no more, so that the process can end. */
export async function closeEvents(): Promise<void> {
  const open = shared.zirconListening;
  shared.zirconListening = undefined;
  if (!open) return;
  open.ended = true;
  await open.client?.end().catch(() => undefined);
}

/** Keeps one connection on LISTEN; after a break every subscriber is told to look for itself. */
async function listen(listening: Listening): Promise<void> {
  const { emitter } = listening;
  while (!listening.ended) {
    const client = new pg.Client({ connectionString: settings.databaseUrl });
    listening.client = client;
    try {
      await client.connect();
      client.on('notification', (message) => {
        const notice = JSON.parse(message.payload ?? '{}') as Notice;
        emitter.emit(notice.project, notice);
        // Who is where concerns who is in the project alone.
        if (!('here' in notice) && !('left' in notice)) emitter.emit('any');
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
    if (!listening.ended) await new Promise((resolve) => setTimeout(resolve, 1000));
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

/** Hears that something happened to some project. @returns the way to stop */
export function subscribeAll(hear: () => void): () => void {
  const { emitter } = listening();
  emitter.on('any', hear);
  emitter.on('again', hear);
  return () => {
    emitter.off('any', hear);
    emitter.off('again', hear);
  };
}
