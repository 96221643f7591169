import { join } from 'node:path';
import { defaultLimits, type ReadLimits } from '@/core/drawing/limits';

const number = (name: string, fallback: number, least = Number.MIN_VALUE) => {
  const value = Number(process.env[name]);
  return process.env[name] !== undefined && Number.isFinite(value) && value >= least ? value : fallback;
};

/** Settings of a server process, from its environment. */
export const settings = {
  get databaseUrl(): string {
    const url = process.env.DATABASE_URL;
    if (!url)
      throw new Error(
        'DATABASE_URL is not set. Start through ./run demo, or give the address of a PostgreSQL database.',
      );
    return url;
  },
  /** Where backups go that the program makes by itself. */
  get backupFolder(): string {
    return process.env.ZIRCON_BACKUPS ?? join(process.env.ZIRCON_STATE ?? join(process.cwd(), '.zircon'), 'backups');
  },
  /** Largest file taken in, in bytes. */
  get maxUpload(): number {
    return number('ZIRCON_MAX_UPLOAD_MB', 512) * 1024 * 1024;
  },
  /** An upload of which nothing comes for this long is ended, in milliseconds. */
  get uploadStall(): number {
    return number('ZIRCON_UPLOAD_STALL_S', 30) * 1000;
  },
  /** Longest that reading one file may take, in milliseconds. */
  get readTimeout(): number {
    return number('ZIRCON_READ_TIMEOUT_S', 900) * 1000;
  },
  /** Memory of the thread that reads a file, in MB. */
  get readMemory(): number {
    return number('ZIRCON_READ_MEMORY_MB', 4096);
  },
  /** What reading one file may come to. */
  get readLimits(): ReadLimits {
    return {
      ...defaultLimits,
      entities: number('ZIRCON_MAX_ENTITIES', defaultLimits.entities, 1),
      primitives: number('ZIRCON_MAX_PRIMITIVES', defaultLimits.primitives, 1),
    };
  },
  /**
   * The office's command that makes a DXF of another file, in its words, with {in} and {out} among them; null where
   * there is none.
   */
  get converter(): string[] | null {
    const words = (process.env.ZIRCON_CONVERTER ?? '').split(/\s+/).filter(Boolean);
    return words.length === 0 ? null : words;
  },
  /** The address it listens on. */
  get listen(): string {
    return process.env.ZIRCON_LISTEN || '127.0.0.1';
  },
  /** Whether people sign in: wherever others reach it, by its address or through a proxy before it. */
  get signIn(): boolean {
    return process.env.ZIRCON_SIGN_IN === '1' || !['127.0.0.1', '::1', 'localhost'].includes(settings.listen);
  },
  /** How it tells what happens: a line of JSON for each thing and each request, or sentences of what is wrong. */
  get log(): 'json' | 'plain' {
    const { ZIRCON_LOG: asked } = process.env;
    if (asked === 'json' || asked === 'plain') return asked;
    return settings.signIn ? 'json' : 'plain';
  },
  /** Jobs run by this process at the same time; a server with none leaves them to workers. */
  get jobs(): number {
    return Math.floor(number('ZIRCON_JOBS', 1, 0));
  },
  /** Host names this server answers to; others could be a foreign page that points its own name here. */
  get hosts(): string[] {
    return [
      '127.0.0.1',
      'localhost',
      '[::1]',
      ...(process.env.ZIRCON_HOSTS ?? '')
        .split(',')
        .map((host) => host.trim())
        .filter(Boolean),
    ];
  },
};
