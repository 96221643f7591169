import * as v from 'valibot';
import { bodyAs, route } from '@/server/http';
import { changePassword } from '@/server/people/people';
import { password } from '@/server/people/passwords';
import { beginSession, expectPerson, sessionAnswer } from '@/server/people/sessions';

/** Who asks; nobody, where nobody signs in. */
export const GET = route('person', async (_, __, who) => ({ person: who }));

const asked = v.strictObject({ present: v.pipe(v.string(), v.maxLength(200)), next: password });

/** Changes one's own password. All sessions end; this window gets a new one. */
export const PUT = route('person', async (request, _, who) => {
  const person = expectPerson(who);
  const { present, next } = await bodyAs(request, asked);
  await changePassword(person, present, next);
  return sessionAnswer(request.headers, await beginSession(person.id));
});
