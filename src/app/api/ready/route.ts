import { database } from '@/server/database/connection';
import { isOld } from '@/server/database/migrate';
import { route } from '@/server/http';
import { Problem } from '@/server/problem';

export const dynamic = 'force-dynamic';

/** That requests can be served: the database answers and is up to date. */
export const GET = route('anyone', async () => {
  if (await isOld(database())) throw new Problem(503, 'The database is being brought up to date.');
  return { ready: true };
});
