import type pg from 'pg';
import { log } from './log';

/** Something that a person can be told: what happened and what to do. Becomes an HTTP answer at the border. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly details: Record<string, unknown> = {},
  ) {
    super(message);
  }
}

export const notFound = (what: string): Problem =>
  new Problem(
    404,
    `${what} is not there any more. It may have been deleted in another window; go back to the project list.`,
  );

/** Errors of the database and the machine that have a sentence of their own. */
export function problemOf(error: unknown): Problem {
  if (error instanceof Problem) return error;
  const code = (error as { code?: string }).code ?? '';
  if (
    ['ECONNREFUSED', 'ECONNRESET', 'EPIPE', '57P01', '57P03', '3D000', '55000', '08006', '08001', '08003'].includes(
      code,
    ) ||
    /Connection terminated|timeout exceeded when trying to connect/.test(String((error as Error).message))
  ) {
    return new Problem(
      503,
      'The database does not answer. What was confirmed is safe; start the database again (./run demo does) and repeat the last step.',
    );
  }
  if (code === '28P01' || code === '28000')
    return new Problem(
      503,
      'The database does not let the server in: the user or the password in DATABASE_URL is not right. Put it right and start again.',
    );
  if (code === '42P01') return new Problem(503, 'The server is still setting its database up. Try again in a moment.');
  if (code === '53100' || code === 'ENOSPC')
    return new Problem(
      507,
      'The disk of the database is full. Nothing of this step was stored; make room and repeat it.',
    );
  if (code === '23503') return brokenReference(error as pg.DatabaseError);
  if (code === '22P05' || code === '22021')
    return new Problem(400, 'A text holds characters that cannot be stored, such as NUL. Take them out and repeat it.');
  if (code === '23505')
    return new Problem(
      409,
      'Something of that name or id is there already. Nothing was stored; look, and choose another.',
    );
  if (code === '23514') return new Problem(400, 'A value is outside its limits; nothing was stored.');
  if (code === '53300')
    return new Problem(503, 'The database has no connection left. Wait a moment and repeat the step.');
  log.problem('Something went wrong', { error });
  return new Problem(
    500,
    'Something went wrong on the server; nothing of this step was stored. The server log has the details.',
  );
}

/** What is said where a row names one that is not there, or is named by one that stays. */
function brokenReference({ detail = '' }: pg.DatabaseError): Problem {
  const missing = /is not present in table "(\w+)"/.exec(detail);
  if (missing === null)
    return new Problem(409, 'That is still in use: a drawing or an element hangs on it. Move or remove these first.');
  const what = namedThings[missing[1]] ?? 'something';
  return new Problem(
    409,
    `Not applied: the step needs ${what} that is not in this project, or not any more; it ` +
      'may have been deleted in another window. Look, and do the step again if it still makes sense.',
  );
}

/** What rows name, by table. */
const namedThings: Record<string, string> = {
  levels: 'a level',
  drawings: 'a drawing',
  library: 'an entry of the library',
  elements: 'a wall or another element',
  projects: 'a project',
};
