import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { invitationOf } from '@/server/people/people';
import { personOf } from '@/server/people/sessions';
import { settings } from '@/server/settings';
import { Join } from './Join';

export const dynamic = 'force-dynamic';

export default async function Page({ params }: { params: Promise<{ token: string }> }) {
  if (!settings.signIn) redirect('/');
  const { token } = await params;
  const [invitation, self] = await Promise.all([invitationOf(token), headers().then(personOf)]);
  return <Join token={token} invitation={invitation} self={self?.name ?? null} />;
}
