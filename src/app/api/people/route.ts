import * as v from 'valibot';
import { bodyAs, route } from '@/server/http';
import { invite, listPeople } from '@/server/people/people';
import { expectSignIn } from '@/server/people/sessions';

/** Everybody who can sign in. */
export const GET = route('head', async () => ({ people: await listPeople() }));

/** Makes a link by which somebody makes an account. */
export const POST = route('head', async (request) => {
  expectSignIn();
  const { head } = await bodyAs(request, v.strictObject({ head: v.boolean() }));
  return { path: `/join/${await invite({ to: 'office', head })}` };
});
