import * as v from 'valibot';
import { bodyAs, route } from '@/server/http';
import { personName, signIn } from '@/server/people/people';
import { addressOf, expectSignIn, sessionAnswer } from '@/server/people/sessions';

const asked = v.strictObject({ name: personName, password: v.pipe(v.string(), v.maxLength(200)) });

/** Begins a session; its cookie is new, whatever the request had. */
export const POST = route('anyone', async (request) => {
  expectSignIn();
  const { name, password } = await bodyAs(request, asked);
  const token = await signIn(name, password, addressOf(request.headers));
  return sessionAnswer(request.headers, token);
});
