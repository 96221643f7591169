import { bodyAs, route } from '@/server/http';
import { join, joining } from '@/server/people/people';
import { addressOf, beginSession, expectSignIn, sessionAnswer } from '@/server/people/sessions';

/** Uses an invitation: makes an account, chooses a new password, or joins a project as who is signed in. */
export const POST = route('anyone', async (request, _, who) => {
  expectSignIn();
  const person = await join(await bodyAs(request, joining), who, addressOf(request.headers));
  // Who joined as who they are stays signed in as that.
  if (who?.id === person) return {};
  return sessionAnswer(request.headers, await beginSession(person));
});
