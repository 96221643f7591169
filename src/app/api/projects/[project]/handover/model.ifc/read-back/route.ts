import { modelIfc } from '@/server/handover';
import { route } from '@/server/http';

/** How many elements of each kind come back when the file is read again. */
export const GET = route<'project'>('reader', async (_, { project }) => ({ kinds: (await modelIfc(project)).back }));
