import { officeSettings } from '@/core/model/office';
import { attachment } from '@/server/attachment';
import { route } from '@/server/http';
import { load } from '@/server/modelOf';

/** A project's settings as `./run convert` takes them. */
export const GET = route<'project'>('reader', async (_, { project }) => {
  const { state, name } = await load(project);
  return attachment(`${JSON.stringify(officeSettings(state), null, 1)}\n`, `${name} settings.json`, 'application/json');
});
