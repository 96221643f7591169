import { atDesk } from '@/server/desk/desk';
import { bytesOf, packedAnswer, route } from '@/server/http';
import { nameOfUpload } from '@/server/nameOfUpload';

/** A model of 50,000 elements has about 25 MB. */
const largestModel = 128 * 1024 * 1024;

/** Makes a project of a model.json: the request's body is its text. */
export const POST = route('person', async (request, _, who) => {
  const fileName = nameOfUpload(request);
  const body = await bytesOf(request, largestModel);
  return packedAnswer(request, await atDesk({ what: 'model', fileName, owner: who?.id ?? null, body }));
});
