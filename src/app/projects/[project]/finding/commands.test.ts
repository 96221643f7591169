import * as v from 'valibot';
import { asDrawn } from '@/core/datum/placement';
import { put } from '@/core/model/edits';
import { plainLevel } from '@/core/model/levels';
import { Model } from '@/core/model/model';
import { roleId } from '@/core/model/roles';
import { emptyState, placementRow, projectRow, roleRow, type DrawingRow } from '@/core/model/state';
import { keepView } from '@/core/model/views';
import { useBoard } from '@/board/boardStore';
import { useGuide } from '@/project/guide';
import { lookHere } from '@/project/looks';
import { Session } from '@/project/session';
import { FakeServer, rowsOf } from '@/project/testing/fakeServer';
import { useTracing, wayNames } from '@/project/tracing';
import { useUnderlays } from '@/project/underlays';
import { useView } from '@/project/view';
import { commandsOf, type Command } from './commands';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const drawing = (n: number, name: string): DrawingRow => ({
  id: uuid(n),
  name,
  fileId: uuid(80 + n),
  fileName: `${name}.dxf`,
  revision: 1,
  levelId: null,
  alsoOn: [],
  discarded: false,
  setAside: false,
});
const grid = (n: number, label: string, end: [number, number]) =>
  put('element', {
    id: uuid(n),
    levelId: null,
    source: null,
    libraryId: null,
    kind: 'grid',
    shape: { kind: 'line', label, start: [0, 0], end },
  });

const placement = (n: number, upright: number | null) =>
  v.parse(placementRow, { ...asDrawn('mm'), id: uuid(n), confirmed: true, upright });
const role = v.parse(roleRow, {
  id: roleId(uuid(3), 'A-WALL'),
  drawingId: uuid(3),
  layer: 'A-WALL',
  role: 'wall',
  suggested: false,
  shown: true,
});

/** A window on a project that has one of everything that commands are about. */
function open() {
  const model = new Model(emptyState);
  model.apply([
    put('project', v.parse(projectRow, { id: uuid(1), name: 'Quay', displayUnit: 'm' })),
    put('level', { ...plainLevel, id: uuid(2), name: 'Ground', elevation: 0, height: 3 }),
    put('drawing', drawing(3, 'plan')),
    put('drawing', drawing(4, 'section')),
    put('placement', placement(3, null)),
    put('placement', placement(4, 0)),
    put('role', role),
    grid(5, 'A', [0, 9]),
    grid(6, '1', [9, 0]),
  ]);
  useView.getState().set({ levelId: uuid(2) });
  useUnderlays.setState({ entries: { [uuid(3)]: { basis: '', opening: false, underlay: null, problem: null } } });
  model.apply(keepView(model, 'All of it', lookHere(model), () => uuid(7)).changes);
  const server = new FakeServer(rowsOf(model));
  Object.assign(globalThis, {
    fetch: (path: string, init?: { body?: string }) => server.fetch(path, init),
  });
  return new Session('p', { state: rowsOf(model), history: server.history, intakes: [], right: 'owner' });
}

/** All that a person sees of what was done: looks, tools, pages, and the model. */
const seen = (session: Session): string =>
  JSON.stringify([
    useView.getState(),
    { tool: useBoard.getState().tool, wish: useBoard.getState().wish, space: useBoard.getState().spaceWish },
    useTracing.getState().kind,
    useGuide.getState().page,
    rowsOf(session.model),
  ]);

const settled = () => new Promise((resolve) => setTimeout(resolve, 1));

/** Leaves everything as nobody who asks for a command would have it. */
async function elsewhere(session: Session, command: Command): Promise<void> {
  await settled();
  useGuide.getState().open(null);
  useBoard.getState().setTool({ kind: 'look' });
  useBoard.getState().lookFrom(null);
  useView.getState().set({
    station: command.words === 'Intake' || command.group === 'Intake' ? 'handover' : 'intake',
    datumPart: 'fit',
    levelId: null,
    faceOn: null,
    drawingId: null,
    axesId: 'other',
    inSpace: command.words === 'Show the plan',
  });
}

// There is no storage to keep looks in here, which is told each time.
beforeAll(() => void jest.spyOn(console, 'warn').mockImplementation(() => undefined));

test('every command does something, and none breaks', async () => {
  const session = open();
  await session.commit(() => ({ label: 'Add A', changes: [grid(9, 'B', [3, 9])] }));
  await session.commit(() => ({ label: 'Add C', changes: [grid(10, 'C', [5, 9])] }));
  await session.undo();
  let toggled = 0;
  const scheme = { dark: false, toggle: () => (toggled += 1) };
  const commands = commandsOf(session, scheme);
  const idle: string[] = [];
  for (const command of commands) {
    await elsewhere(session, command);
    const before = `${seen(session)} ${toggled}`;
    command.run();
    await settled();
    if (`${seen(session)} ${toggled}` === before) idle.push(`${command.group}: ${command.words}`);
  }
  expect(idle).toEqual([]);
  expect(commands.length).toBeGreaterThan(100);
  const groups = new Set(commands.map(({ group }) => group));
  for (const group of ['Board', 'View', 'Layer', 'Crossing', 'Drawing', 'Change', 'On a section'])
    expect(groups).toContain(group);
});

test('every way of making and changing but pasting can be asked for by its words', async () => {
  const session = open();
  const asked: string[] = [];
  for (const command of commandsOf(session, { dark: false, toggle: () => undefined })) {
    if (!['Make', 'Change', 'On a section'].includes(command.group)) continue;
    command.run();
    await settled();
    const { tool } = useBoard.getState();
    if (tool.kind === 'trace') asked.push(tool.way);
  }
  expect(asked.sort()).toEqual(wayNames.filter((name) => name !== 'change.paste').sort());
});
