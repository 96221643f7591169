import { Model } from '@/core/model/model';
import type { BoardScene } from './scene';
import { View } from './view';

const scene = { drawings: [], model: new Model(), levelId: null, heights: null } as unknown as BoardScene;

test('a pane that is still unfolding keeps what it was asked for, and looks at it once it is wide enough', () => {
  const looked: number[] = [];
  const view = new View(null, ({ metresPerPixel }) => looked.push(metresPerPixel));
  view.size = { width: 60, height: 700 };
  view.look(scene, [0, 0, 30, 10]);
  expect(looked).toEqual([]);
  view.size = { width: 396, height: 700 };
  view.begin(scene);
  // 30 m on 396 pixels less 48 at either side: a tenth of a metre each.
  expect(looked).toEqual([expect.closeTo(0.1, 9)]);
  // Fulfilled once: another width leaves the view alone.
  view.size = { width: 800, height: 700 };
  view.begin(scene);
  expect(looked).toHaveLength(1);
});
