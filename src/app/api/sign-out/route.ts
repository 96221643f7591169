import * as v from 'valibot';
import { bodyAs, route } from '@/server/http';
import { endSession, endSessions, expectPerson, sessionAnswer } from '@/server/people/sessions';

/** Ends the session of this window, or all sessions of its person wherever they are. */
export const POST = route('person', async (request, _, who) => {
  const person = expectPerson(who);
  const { everywhere } = await bodyAs(request, v.strictObject({ everywhere: v.boolean() }));
  if (everywhere) await endSessions(person.id);
  else await endSession(request.headers);
  return sessionAnswer(request.headers, null);
});
