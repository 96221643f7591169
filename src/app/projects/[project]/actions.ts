import { acceptCandidates, decisionId } from '@/core/decisions/decide';
import { measureModes } from '@/core/datum/measure';
import { groupBy } from '@/core/groupBy';
import { gridCrossings } from '@/core/kinds/gridCrossings';
import { elementKinds } from '@/core/kinds/element';
import { kinds } from '@/core/kinds/kinds';
import { displayOf } from '@/core/model/drawings';
import { put, type Change } from '@/core/model/edits';
import { levelsUp } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import { showLayers } from '@/core/model/roles';
import type { DrawingRow } from '@/core/model/state';
import { displayUnits, unitNames } from '@/core/units/length';
import { useBoard } from '@/board/boardStore';
import { activeDrawings, projectRowOf } from '@/project/projectRow';
import { useReadings } from '@/project/readings';
import type { Session } from '@/project/session';
import {
  datumParts,
  intakeParts,
  readingParts,
  sortingParts,
  stationNames,
  tracingParts,
  useView,
} from '@/project/view';
import { useTracing } from '@/project/tracing';
import { waysOf, wayWords } from '@/stations/tracing/words';
import type { Action } from '@/ui/shell/FindOrDo';

/** Colours of the program, as the search box turns them. */
interface Scheme {
  dark: boolean;
  toggle: () => void;
}

/** Everything that the search box can find or do, put together when it is opened. */
export function actionsOf(session: Session, scheme: Scheme): Action[] {
  const { model } = session;
  const drawings = activeDrawings(model);
  return [
    ...stationActions(),
    ...boardActions(),
    ...programActions(session, scheme),
    ...unitActions(session),
    ...levelActions(model),
    ...partActions(),
    ...makingActions(),
    ...axesActions(model),
    ...drawings.flatMap((drawing) => drawingActions(session, drawing)),
    ...drawings.flatMap((drawing) => readingActions(session, drawing)),
    ...drawings.flatMap((drawing) => layerActions(session, drawing)),
    ...crossingActions(model),
  ];
}

const setView: ReturnType<typeof useView.getState>['set'] = (part) => useView.getState().set(part);
const lookAt: ReturnType<typeof useBoard.getState>['lookAt'] = (box) => useBoard.getState().lookAt(box);

const stationActions = (): Action[] =>
  stationNames.map((station) => ({
    group: 'Station',
    words: station[0].toUpperCase() + station.slice(1),
    run: () => setView({ station, benchFolded: false }),
  }));

const boardActions = (): Action[] => [
  { group: 'Board', words: 'Show all', run: () => lookAt('all') },
  { group: 'Board', words: 'Show the model in space', run: () => setView({ inSpace: true }) },
  { group: 'Board', words: 'Show the plan', run: () => setView({ inSpace: false }) },
  ...measureModes.map((mode): Action => ({
    group: 'Board',
    words: `Measure ${mode === 'angle' || mode === 'area' ? 'an' : 'a'} ${mode}`,
    run: () => {
      setView({ station: 'datum', datumPart: 'measure', benchFolded: false });
      useBoard.getState().setTool({ kind: 'measure', mode });
    },
  })),
];

function programActions({ facts, undo, redo }: Session, { dark, toggle }: Scheme): Action[] {
  const { history } = facts.getState();
  const group = 'Program';
  return [
    { group, words: dark ? 'Light colours' : 'Dark colours', run: toggle },
    ...(history.undo === null ? [] : [{ group, words: `Undo ${history.undo}`, run: () => void undo() }]),
    ...(history.redo === null ? [] : [{ group, words: `Redo ${history.redo}`, run: () => void redo() }]),
  ];
}

const unitActions = (session: Session): Action[] =>
  displayUnits.map((unit) => ({
    group: 'Project unit',
    words: `Show lengths in ${unitNames[unit]}`,
    run: () =>
      void session.commit((now) => ({
        label: `Lengths in ${unitNames[unit]}`,
        changes: [put('project', { ...projectRowOf(now), displayUnit: unit, places: null })],
      })),
  }));

const levelActions = (model: Model): Action[] =>
  levelsUp(model).map(({ id, name }) => ({
    group: 'Level',
    words: name,
    run: () => setView({ levelId: id, faceOn: null }),
  }));

const sortingWords = { layers: 'layers', blocks: 'blocks', picked: 'picked lines', maps: 'role maps' };
const readingWords = {
  review: 'the review of candidates',
  library: 'the library',
  numbering: 'the numbering of grid lines',
  settings: 'what reading takes for granted',
};

const partActions = (): Action[] => [
  ...datumParts.map((part): Action => ({
    group: 'Datum',
    words: `Open ${part} of Datum`,
    run: () => setView({ station: 'datum', benchFolded: false, datumPart: part }),
  })),
  ...sortingParts.map((part): Action => ({
    group: 'Sorting',
    words: `Open ${sortingWords[part]}`,
    run: () => setView({ station: 'sorting', benchFolded: false, sortingPart: part }),
  })),
  ...readingParts.map((part): Action => ({
    group: 'Parts of Reading',
    words: `Open ${readingWords[part]}`,
    run: () => setView({ station: 'reading', benchFolded: false, readingPart: part }),
  })),
  ...tracingParts.map((part): Action => ({
    group: 'Tracing',
    words: `Open ${part} of Tracing`,
    run: () => setView({ station: 'tracing', benchFolded: false, tracingPart: part }),
  })),
  ...intakeParts.map((part): Action => ({
    group: 'Intake',
    words: `Open ${part}`,
    run: () => setView({ station: 'intake', benchFolded: false, intakePart: part }),
  })),
];

/** Ways of making, by what they make. */
const makingActions = (): Action[] =>
  elementKinds.flatMap((kind) =>
    waysOf[kind].map((way): Action => ({
      group: 'Make',
      words: `Make ${kinds[kind].names[1]}: ${wayWords[way]}`,
      run: () => {
        setView({ station: 'tracing', tracingPart: 'make', benchFolded: false });
        useTracing.getState().set({ kind, ways: { ...useTracing.getState().ways, [kind]: way } });
        // A bench that is left ends what it asked for; this is asked after it.
        setTimeout(() => useBoard.getState().setTool({ kind: 'trace', way }));
      },
    })),
  );

const axesActions = (model: Model): Action[] =>
  [{ id: null, name: 'the project' }, ...projectRowOf(model).axes].map(({ id, name }) => ({
    group: 'Axes',
    words: `Work along ${name}`,
    run: () => setView({ axesId: id }),
  }));

function drawingActions(session: Session, drawing: DrawingRow): Action[] {
  const { model } = session;
  const { id, name, levelId, setAside } = drawing;
  const group = 'Drawing';
  const { held } = displayOf(model, id);
  const change = (label: string, make: (now: Model) => Change) => () =>
    void session.commit((now) => ({ label, changes: [make(now)] }));
  const aside = `${setAside ? 'Bring back' : 'Set aside'} ${name}`;
  const upright = model.placement[id]?.upright != null;
  return [
    {
      group,
      words: `Take ${name} in hand`,
      run: () => setView({ drawingId: id, ...(levelId ? { levelId } : {}) }),
    },
    {
      group,
      words: aside,
      run: change(aside, (now) => put('drawing', { ...now.drawing[id], setAside: !setAside })),
    },
    {
      group,
      words: `${held ? 'Release' : 'Hold'} ${name}`,
      run: change(`${name}: ${held ? 'released' : 'held'}`, (now) =>
        put('display', { ...displayOf(now, id), held: !held }),
      ),
    },
    ...(upright
      ? [{ group, words: `Look at ${name} face on`, run: () => setView({ faceOn: id, drawingId: id }) }]
      : []),
  ];
}

/** Accepting what nobody has decided on, by kind. */
function readingActions(session: Session, drawing: DrawingRow): Action[] {
  const { model } = session;
  if (model.placement[drawing.id]?.upright != null) return [];
  const { readings } = useReadings.getState();
  const open = (readings[drawing.id]?.result?.candidates ?? []).filter(
    ({ key }) => model.decision[decisionId(drawing.id, key)] === undefined,
  );
  return [...groupBy(open, ({ kind }) => kind)].map(([kind, candidates]) => ({
    group: 'Reading',
    words: `Accept all ${kinds[kind].names[1]} of ${drawing.name} (${candidates.length})`,
    run: () => void session.commit((now) => acceptCandidates(now, drawing, candidates, () => crypto.randomUUID())),
  }));
}

const layerActions = (session: Session, drawing: DrawingRow): Action[] =>
  Object.values(session.model.role)
    .filter(({ drawingId }) => drawingId === drawing.id)
    .map(({ id, layer, shown }) => ({
      group: 'Layer',
      words: `${shown ? 'Hide' : 'Show'} layer ${layer} of ${drawing.name}`,
      run: () => void session.commit((now) => showLayers([now.role[id]], !shown)),
    }));

const crossingActions = (model: Model): Action[] =>
  gridCrossings(Array.from(model.ofKind('grid'), ({ shape }) => shape)).map(({ name, point: [x, y] }) => ({
    group: 'Crossing',
    words: `Go to ${name}`,
    run: () => lookAt([x - 5, y - 5, x + 5, y + 5]),
  }));
