import { route } from '@/server/http';
import { forgetRoleMap } from '@/server/roleMaps';

export const DELETE = route<'map'>('person', async (_, { map }) => forgetRoleMap(map));
