import { openArchive } from '@/server/archive';
import { nameOfUpload } from '@/server/nameOfUpload';
import { route } from '@/server/http';
import { Problem } from '@/server/problem';

/** Opens an archive as a copy: the request's body is its bytes. */
export const POST = route(async (request) => {
  const name = nameOfUpload(request);
  if (request.body === null) throw new Problem(400, `${name} is empty.`);
  return openArchive(name, request.body as unknown as AsyncIterable<Uint8Array>);
});
