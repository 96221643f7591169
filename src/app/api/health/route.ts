import { route } from '@/server/http';

export const dynamic = 'force-dynamic';

/** That the process answers. */
export const GET = route('anyone', async () => ({ up: true }));
