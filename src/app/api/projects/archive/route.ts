import { openArchive } from '@/server/archive';
import { route } from '@/server/http';
import { Problem } from '@/server/problem';

const longestName = 255;

/** Opens an archive as a copy: the request's body is its bytes. */
export const POST = route(async (request) => {
  const name = new URL(request.url).searchParams.get('name') ?? '';
  if (name === '' || name.length > longestName || /[/\\\0]/.test(name))
    throw new Problem(400, `The upload needs a plain file name of at most ${longestName} characters.`);
  if (request.body === null) throw new Problem(400, `${name} is empty.`);
  return openArchive(name, request.body as unknown as AsyncIterable<Uint8Array>);
});
