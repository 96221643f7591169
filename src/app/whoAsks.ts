import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { personOf, type Person } from '@/server/people/sessions';
import { settings } from '@/server/settings';

/** Who looks at a page; null where nobody signs in. Who has not signed in yet is sent to do so. */
export async function whoAsks(): Promise<Person | null> {
  if (!settings.signIn) return null;
  const who = await personOf(await headers());
  if (who === null) redirect('/sign-in');
  return who;
}
