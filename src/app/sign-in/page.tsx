import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { personOf } from '@/server/people/sessions';
import { settings } from '@/server/settings';
import { SignIn } from './SignIn';

export const dynamic = 'force-dynamic';

export default async function Page() {
  if (!settings.signIn || (await personOf(await headers())) !== null) redirect('/');
  return <SignIn />;
}
