import { roleMapSchema } from '@/core/sorting/roleMap';
import { bodyAs, route } from '@/server/http';
import { keepRoleMap, listRoleMaps } from '@/server/roleMaps';

export const GET = route('person', async () => ({ maps: await listRoleMaps() }));

/** Keeps a role map under its name; one of that name is replaced. */
export const POST = route('person', async (request) => ({
  id: await keepRoleMap(await bodyAs(request, roleMapSchema)),
}));
