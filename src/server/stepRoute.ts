import * as v from 'valibot';
import { editsSince, stepHistory } from './edits';
import { bodyAs, route } from './http';

const request = v.strictObject({
  seen: v.pipe(v.number(), v.integer(), v.minValue(0)),
  clientId: v.pipe(v.string(), v.uuid()),
});

/** The route of undo or of redo. */
export const stepRoute = (way: 'undo' | 'redo') =>
  route<'project'>(async (incoming, { project }) => {
    const { seen, clientId } = await bodyAs(incoming, request);
    await stepHistory(project, way, seen, clientId);
    return editsSince(project, seen);
  });
