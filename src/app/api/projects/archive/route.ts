import { openArchive } from '@/server/archive';
import { nameOfUpload } from '@/server/nameOfUpload';
import { route } from '@/server/http';
import { giveOwner } from '@/server/people/rights';
import { Problem } from '@/server/problem';

/** Opens an archive as a copy: the request's body is its bytes. */
export const POST = route('person', async (request, _, who) => {
  const name = nameOfUpload(request);
  if (request.body === null) throw new Problem(400, `${name} is empty.`);
  const opened = await openArchive(name, request.body as unknown as AsyncIterable<Uint8Array>);
  await giveOwner(opened.id, who?.id ?? null);
  return opened;
});
