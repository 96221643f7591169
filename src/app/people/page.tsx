import { redirect } from 'next/navigation';
import { listPeople } from '@/server/people/people';
import { settings } from '@/server/settings';
import { whoAsks } from '../whoAsks';
import { People } from './People';

export const dynamic = 'force-dynamic';

export default async function Page() {
  if (!settings.signIn) redirect('/');
  const who = await whoAsks();
  if (who === null) redirect('/');
  return <People self={who} people={who.head ? await listPeople() : null} />;
}
