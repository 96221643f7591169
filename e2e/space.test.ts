import type { ElementRow } from '@/core/kinds/element';
import type { ProjectState } from '@/core/model/state';
import { ask, openProject, openStage, problems, station, type Stage } from './harness';

let stage: Stage;
beforeAll(async () => {
  stage = await openStage();
});
afterAll(() => stage.close());
