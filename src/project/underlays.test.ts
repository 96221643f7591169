import { emptyState, type DrawingRow, type ProjectState } from '@/core/model/state';
import { plainDisplay } from '@/core/underlay/display';
import type { Order } from '@/workers/orders';

/** A worker that answers when told to, so that orders can overtake one another. */
const orders: { order: Order; answer: (ok: boolean) => Promise<void> }[] = [];
jest.mock('comlink', () => ({
  wrap: () => ({
    open: (order: Order) =>
      new Promise((resolve, reject) => {
        orders.push({
          order,
          answer: async (ok) => {
            if (ok)
              resolve({
                layers: [{ name: order.fileId, hidden: false, empty: false }],
                blocks: [],
                primitives: {},
                index: { tree: 0 },
                segments: {},
                counts: {},
              });
            else reject(new Error('not there'));
            await new Promise((done) => setTimeout(done, 0));
          },
        });
      }),
  }),
}));
jest.mock('@/core/underlay/pieces', () => ({ openIndex: (data: unknown) => data }));
Object.assign(globalThis, {
  Worker: class extends EventTarget {
    postMessage() {
      /* Nothing is sent. */
    }
  },
  location: { origin: 'http://here' },
});

const id = '00000000-0000-4000-8000-000000000001';
const drawing: DrawingRow = {
  id,
  name: 'plan',
  fileId: 'file-1',
  fileName: 'plan.dxf',
  revision: 1,
  levelId: null,
  alsoOn: [],
  discarded: false,
  setAside: false,
};
const placed: ProjectState = {
  ...emptyState,
  drawing: { [id]: drawing },
  placement: {
    [id]: {
      id,
      unit: 'mm',
      confirmed: false,
      origin: [0, 0],
      target: [0, 0],
      turning: 0,
      scale: 1,
      mirrored: false,
      upright: null,
    },
  },
};

test('an underlay is made anew when file, recipe, unit or line types change, and only then; the one before stays till then', async () => {
  // The worker's address is that of a module, which a test has none of.
  const { useUnderlays, underlayOf } = await import('./underlays');
  const open = (state: ProjectState) => useUnderlays.getState().open('p', state, Object.values(state.drawing));
  const shown = () => underlayOf(useUnderlays.getState().entries, id);

  open(placed);
  open(placed);
  expect(orders).toHaveLength(1);
  expect(orders[0].order).toMatchObject({
    drawingId: id,
    fileId: 'file-1',
    metresPerUnit: 0.001,
    recipe: [],
    dashed: false,
    url: expect.stringContaining('http://here/api/projects/p/files/file-1/columns'),
  });
  expect(shown()).toBeNull();
  await orders[0].answer(true);
  expect(shown()!.layers[0].name).toBe('file-1');

  const cleaned: ProjectState = {
    ...placed,
    recipe: { [id]: { id, steps: [{ id: '1', on: true, step: { kind: 'strays' } }] } },
  };
  open(cleaned);
  expect(orders).toHaveLength(2);
  expect(shown()!.layers[0].name).toBe('file-1');
  await orders[1].answer(true);
  open({ ...cleaned, display: { [id]: { id, ...plainDisplay, fade: 0.5 } } });
  expect(orders).toHaveLength(2);
  open({ ...cleaned, display: { [id]: { id, ...plainDisplay, lineTypes: true } } });
  expect(orders[2].order.dashed).toBe(true);

  // An answer that was overtaken by a later order does not count.
  const later: ProjectState = { ...placed, drawing: { [id]: { ...drawing, fileId: 'file-2', revision: 2 } } };
  open(later);
  await orders[3].answer(true);
  await orders[2].answer(true);
  expect(shown()!.layers[0].name).toBe('file-2');

  // Looking at an earlier revision shows its file until the look ends.
  useUnderlays.getState().look(id, 'file-1');
  open(later);
  expect(orders[4].order.fileId).toBe('file-1');
  await orders[4].answer(true);
  expect(shown()!.layers[0].name).toBe('file-1');
  useUnderlays.getState().look(id, null);
  open(later);
  await orders[5].answer(false);
  expect([shown(), useUnderlays.getState().entries[id].problem]).toEqual([null, 'not there']);
  useUnderlays.getState().retry(id);
  open(later);
  expect(orders).toHaveLength(7);
});
