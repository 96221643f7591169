import { decisionId } from '@/core/decisions/decide';
import { measureModes } from '@/core/datum/measure';
import { groupBy } from '@/core/groupBy';
import { gridCrossings } from '@/core/kinds/gridCrossings';
import { kinds } from '@/core/kinds/kinds';
import { displayOf } from '@/core/model/drawings';
import { put, type Change } from '@/core/model/edits';
import { levelsUp } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import { showLayers } from '@/core/model/roles';
import type { DrawingRow } from '@/core/model/state';
import { displayUnits, unitNames } from '@/core/units/length';
import { useBoard } from '@/board/boardStore';
import { standardViewNames, standardViews } from '@/board/space/orbit';
import { useUnderlays } from '@/project/underlays';
import { viewsOf } from '@/core/model/views';
import { activeDrawings, projectRowOf } from '@/project/projectRow';
import { accept } from '@/project/accept';
import { useReadings } from '@/project/readings';
import type { Session } from '@/project/session';
import {
  datumParts,
  intakeParts,
  handoverParts,
  proofParts,
  readingParts,
  sortingParts,
  stationNames,
  stationsToLook,
  tracingParts,
  useView,
  type StationName,
} from '@/project/view';
import { actNames, acts, type ActName } from '@/project/keys';
import { useGuide } from '@/project/guide';
import type { Found } from '@/ui/shell/FindOrDo';
import { recallView } from '../ViewsMenu';
import { changingActions, makingActions, uprightActions } from './makingCommands';

/** Something that can be done: by its words, with what it does in a sentence, and the act whose key does it. */
export type Command = Omit<Found, 'key'> & { about: string; act?: ActName };

/** Colours of the program, as the search box turns them. */
export interface Scheme {
  dark: boolean;
  toggle: () => void;
}

/** Everything that can be done, put together when the search box is opened. */
export function commandsOf(session: Session, scheme: Scheme): Command[] {
  const { model } = session;
  const drawings = activeDrawings(model);
  const commands = [
    ...stationActions(),
    ...boardActions(),
    ...programActions(session, scheme),
    ...unitActions(session),
    ...levelActions(model),
    ...partActions(),
    ...makingActions(),
    ...changingActions(),
    ...uprightActions(model),
    ...axesActions(model),
    ...viewActions(model),
    ...helpActions(),
    ...drawings.flatMap((drawing) => drawingActions(session, drawing)),
    ...drawings.flatMap((drawing) => readingActions(session, drawing)),
    ...drawings.flatMap((drawing) => layerActions(session, drawing)),
    ...crossingActions(model),
  ];
  return [...commands, ...keyActions(commands)];
}

/** What who may only look can do. */
export const commandsToLook = (model: Model): Command[] => [
  ...stationActions().filter(({ act }) => stationsToLook.some((one) => one === act)),
  ...boardActions(),
  ...viewActions(model),
  ...helpActions(),
  ...crossingActions(model),
];

/** Opens the second view on another drawing than the one in hand where there is one, or closes it. */
export function toggleBeside(): void {
  const { beside, drawingId, set } = useView.getState();
  const others = Object.keys(useUnderlays.getState().entries).filter((id) => id !== drawingId);
  const first = others[0] ?? drawingId;
  if (beside !== null) set({ beside: null });
  else if (first !== null && first !== undefined) set({ beside: { drawingId: first, follows: true, camera: null } });
}

const viewActions = (model: Model): Command[] =>
  viewsOf(model).map((row) => ({
    group: 'View',
    words: `Look at ${row.name}`,
    about: 'A view that was kept: drawings, layers, level, place and cut.',
    ...(row.key === null ? {} : { letter: row.key }),
    run: () => recallView(model, row),
  }));

/** What keys do that nothing else does: found by its words, and shown on the page of keys. */
const keyActions = (commands: readonly Command[]): Command[] => {
  const known = new Set(commands.map(({ act }) => act));
  return actNames
    .filter((act) => !known.has(act))
    .map((act) => ({
      group: 'Key',
      words: acts[act].words,
      about: acts[act].where === 'board' ? 'While the board has the keyboard.' : 'Wherever the keyboard is.',
      act,
      run: () => useGuide.getState().open('keys'),
    }));
};

const helpActions = (): Command[] => [
  {
    group: 'Help',
    words: 'The guide of this station',
    about: 'What is done at a station, in which order, and what to watch.',
    act: 'guide',
    run: () => useGuide.getState().open(useView.getState().station),
  },
  {
    group: 'Help',
    words: 'The keys',
    about: 'What each key does; keys can be given to other acts.',
    act: 'keys',
    run: () => useGuide.getState().open('keys'),
  },
];

const setView: ReturnType<typeof useView.getState>['set'] = (part) => useView.getState().set(part);
const lookAt: ReturnType<typeof useBoard.getState>['lookAt'] = (box) => useBoard.getState().lookAt(box);

const stationAbout: Record<StationName, string> = {
  intake: 'Bring drawings in, and see what was read and what was left out.',
  datum: 'Unit, place and level of drawings, with the evidence for them.',
  sorting: 'Say which layers, blocks and lines are what.',
  reading: 'Go through what was read, and accept it.',
  tracing: 'Take, draw and change elements by hand.',
  proof: 'See what is wrong with the model, and go there.',
  handover: 'Write the model out.',
};

const stationActions = (): Command[] =>
  stationNames.map((station) => ({
    group: 'Station',
    words: station[0].toUpperCase() + station.slice(1),
    about: stationAbout[station],
    act: station,
    run: () => setView({ station, benchFolded: false }),
  }));

const besideAction: Command = {
  group: 'Board',
  words: 'Open a second view',
  about: 'Another drawing beside the board: a detail, a schedule, a section. It follows the mark that is selected.',
  act: 'beside',
  run: toggleBeside,
};

const boardActions = (): Command[] => [
  { group: 'Board', words: 'Show all', about: 'All that the drawings show.', run: () => lookAt('all') },
  {
    group: 'Board',
    words: 'Show the model in space',
    about: 'The model true to size with the drawings at their levels; it can be cut, seen through and picked in.',
    act: 'space',
    run: () => setView({ inSpace: true }),
  },
  {
    group: 'Board',
    words: 'Show the plan',
    about: 'The level seen from above, to read and draw in.',
    act: 'space',
    run: () => setView({ inSpace: false }),
  },
  ...standardViewNames.map((name): Command => ({
    group: 'Space',
    words: `Look ${standardViews[name].words.charAt(0).toLowerCase()}${standardViews[name].words.slice(1)}`,
    about: 'Turns the model in space, and shows all of it.',
    run: () => {
      setView({ inSpace: true });
      useBoard.getState().lookFrom(name);
    },
  })),
  ...(Object.keys(useUnderlays.getState().entries).length === 0 ? [] : [besideAction]),
  {
    group: 'Board',
    words: 'Fold the bench, or unfold it',
    about: 'Gives the board the room of the bench.',
    act: 'bench',
    run: () => setView({ benchFolded: !useView.getState().benchFolded }),
  },
  ...measureModes.map((mode): Command => ({
    group: 'Board',
    words: `Measure ${mode === 'angle' || mode === 'area' ? 'an' : 'a'} ${mode}`,
    about: 'Between points that are held on to, in the unit of the project.',
    ...(mode === 'distance' ? { act: 'measure' as const } : {}),
    run: () => {
      setView({ station: 'datum', datumPart: 'measure', benchFolded: false });
      useBoard.getState().setTool({ kind: 'measure', mode });
    },
  })),
];

function programActions({ facts, undo, redo }: Session, { dark, toggle }: Scheme): Command[] {
  const { history } = facts.getState();
  const group = 'Program';
  return [
    { group, words: dark ? 'Light colours' : 'Dark colours', about: 'Of the whole program.', run: toggle },
    ...(history.undo === null
      ? []
      : [
          {
            group,
            words: `Undo ${history.undo}`,
            about: 'Takes the last step back.',
            act: 'undo' as const,
            run: () => void undo(),
          },
        ]),
    ...(history.redo === null
      ? []
      : [
          {
            group,
            words: `Redo ${history.redo}`,
            about: 'Does again what was taken back.',
            act: 'redo' as const,
            run: () => void redo(),
          },
        ]),
  ];
}

const unitActions = (session: Session): Command[] =>
  displayUnits.map((unit) => ({
    group: 'Project unit',
    words: `Show lengths in ${unitNames[unit]}`,
    about: 'How lengths are shown and typed; nothing is scaled.',
    run: () =>
      void session.commit((now) => ({
        label: `Lengths in ${unitNames[unit]}`,
        changes: [put('project', { ...projectRowOf(now), displayUnit: unit, places: null })],
      })),
  }));

const levelActions = (model: Model): Command[] =>
  levelsUp(model).map(({ id, name }) => ({
    group: 'Level',
    words: name,
    about: 'Shows this level in plan.',
    run: () => setView({ levelId: id, faceOn: null }),
  }));

const sortingWords = { layers: 'layers', blocks: 'blocks', picked: 'picked lines', maps: 'role maps' };
const readingWords = {
  review: 'the review of candidates',
  library: 'the library',
  numbering: 'the numbering of grid lines',
  settings: 'what reading takes for granted',
};

const partActions = (): Command[] => [
  ...datumParts.map((part): Command => ({
    group: 'Datum',
    words: `Open ${part} of Datum`,
    about: 'A part of the bench.',
    run: () => setView({ station: 'datum', benchFolded: false, datumPart: part }),
  })),
  ...sortingParts.map((part): Command => ({
    group: 'Sorting',
    words: `Open ${sortingWords[part]}`,
    about: 'A part of the bench.',
    run: () => setView({ station: 'sorting', benchFolded: false, sortingPart: part }),
  })),
  ...readingParts.map((part): Command => ({
    group: 'Parts of Reading',
    words: `Open ${readingWords[part]}`,
    about: 'A part of the bench.',
    run: () => setView({ station: 'reading', benchFolded: false, readingPart: part }),
  })),
  ...tracingParts.map((part): Command => ({
    group: 'Tracing',
    words: `Open ${part} of Tracing`,
    about: 'A part of the bench.',
    run: () => setView({ station: 'tracing', benchFolded: false, tracingPart: part }),
  })),
  ...proofParts.map((part): Command => ({
    group: 'Proof',
    words: `Open ${part} of Proof`,
    about: 'A part of the bench.',
    run: () => setView({ station: 'proof', benchFolded: false, proofPart: part }),
  })),
  ...handoverParts.map((part): Command => ({
    group: 'Handover',
    words: part === 'files' ? 'Open single files of Handover' : `Open ${part} of Handover`,
    about: 'A part of the bench.',
    run: () => setView({ station: 'handover', benchFolded: false, handoverPart: part }),
  })),
  ...intakeParts.map((part): Command => ({
    group: 'Intake',
    words: `Open ${part}`,
    about: 'A part of the bench.',
    run: () => setView({ station: 'intake', benchFolded: false, intakePart: part }),
  })),
];

const axesActions = (model: Model): Command[] =>
  [{ id: null, name: 'the project' }, ...projectRowOf(model).axes].map(({ id, name }) => ({
    group: 'Axes',
    words: `Work along ${name}`,
    about: 'Coordinates are typed and directions locked along these axes.',
    run: () => setView({ axesId: id }),
  }));

function drawingActions(session: Session, drawing: DrawingRow): Command[] {
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
      about: 'Benches are about this drawing then.',
      run: () => setView({ drawingId: id, ...(levelId ? { levelId } : {}) }),
    },
    {
      group,
      words: aside,
      about: 'A drawing that is set aside is not shown, and keeps its place.',
      run: change(aside, (now) => put('drawing', { ...now.drawing[id], setAside: !setAside })),
    },
    {
      group,
      words: `${held ? 'Release' : 'Hold'} ${name}`,
      about: 'A drawing that is held cannot be clicked or moved, and is still there to snap to.',
      run: change(`${name}: ${held ? 'released' : 'held'}`, (now) =>
        put('display', { ...displayOf(now, id), held: !held }),
      ),
    },
    ...(upright
      ? [
          {
            group,
            words: `Look at ${name} face on`,
            about: 'The section or elevation in its own plane.',
            run: () => setView({ faceOn: id, drawingId: id }),
          },
        ]
      : []),
  ];
}

/** Accepting what nobody has decided on, by kind. */
function readingActions(session: Session, drawing: DrawingRow): Command[] {
  const { model } = session;
  if (model.placement[drawing.id]?.upright != null) return [];
  const { readings } = useReadings.getState();
  const open = (readings[drawing.id]?.result?.candidates ?? []).filter(
    ({ key }) => model.decision[decisionId(drawing.id, key)] === undefined,
  );
  return [...groupBy(open, ({ kind }) => kind)].map(([kind, candidates]) => ({
    group: 'Reading',
    words: `Accept all ${kinds[kind].names[1]} of ${drawing.name} (${candidates.length})`,
    about: 'What nobody has decided on; one step, that can be undone.',
    run: () => void accept(session, drawing, candidates),
  }));
}

const layerActions = (session: Session, drawing: DrawingRow): Command[] =>
  Object.values(session.model.role)
    .filter(({ drawingId }) => drawingId === drawing.id)
    .map(({ id, layer, shown }) => ({
      group: 'Layer',
      words: `${shown ? 'Hide' : 'Show'} layer ${layer} of ${drawing.name}`,
      about: 'For everybody in the project.',
      run: () => void session.commit((now) => showLayers([now.role[id]], !shown)),
    }));

const crossingActions = (model: Model): Command[] =>
  gridCrossings(Array.from(model.ofKind('grid'), ({ shape }) => shape)).map(({ name, point: [x, y] }) => ({
    group: 'Crossing',
    words: `Go to ${name}`,
    about: 'A crossing of two grid lines.',
    run: () => lookAt([x - 5, y - 5, x + 5, y + 5]),
  }));
