import { route } from '@/server/http';
import { invite, removePerson } from '@/server/people/people';
import { expectPerson, expectSignIn } from '@/server/people/sessions';

/** Makes a link by which somebody chooses a new password. */
export const POST = route<'person'>('head', async (_, { person }) => {
  expectSignIn();
  return { path: `/join/${await invite({ to: 'password', person })}` };
});

/** Takes an account away; what its person made stays. */
export const DELETE = route<'person'>('head', async (_, { person }, who) => {
  await removePerson(person, expectPerson(who));
});
