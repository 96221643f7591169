'use client';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import { Suspense, useEffect, useMemo, useRef } from 'react';
import { Group, Panel, Separator } from 'react-resizable-panels';
import { counted } from '@/core/model/counted';
import { levelsUp } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import type { LevelRow } from '@/core/model/state';
import { hearCursor, useBoard } from '@/board/boardStore';
import type { BoardScene } from '@/board/scene';
import { activeDrawings } from '@/project/projectRow';
import { readyMirror } from '@/project/mirror';
import { useComparing, useComparisonsKept } from '@/project/comparisons';
import { useFindings, useFindingsKept, useJudged } from '@/project/findings';
import { useHeatStale } from '@/project/heat';
import { useLightKept } from '@/project/light';
import { useTrialKept } from '@/project/trial';
import { useReadings } from '@/project/readings';
import { useUnderlays } from '@/project/underlays';
import { drawingInHand } from '@/project/useDrawing';
import { useModel, useMayEdit, useMoment, useSession, useFacts, useLengths } from '@/project/useSession';
import { stationsToLook, useView, type StationName } from '@/project/view';
import { CourseRail } from '@/ui/shell/CourseRail';
import { FindOrDo } from '@/ui/shell/FindOrDo';
import { Guide } from '@/ui/shell/Guide';
import { StatusLine } from '@/ui/shell/StatusLine';
import { TopBar } from '@/ui/shell/TopBar';
import { Icon } from '@/ui/widgets/Icon';
import { useScheme } from '@/ui/widgets/useScheme';
import { commandsOf, commandsToLook, type Command } from './finding/commands';
import { foundFor } from './finding/found';
import { readyToSearch } from './finding/ready';
import { DeskBeside } from './beside/DeskBeside';
import { Coming } from './Coming';
import { DeskBoard } from './DeskBoard';
import { DeskLadder } from './DeskLadder';
import { later, type Later } from './later';
import { openCandidates, railStations } from './railStations';
import { OthersHere } from './others/OthersHere';
import { useTellHere } from './others/useTellHere';
import { useBoardScene } from './useBoardScene';
import { useMessages } from './useMessages';
import { useActKeys } from './useActKeys';

const benches: Record<StationName, Later> = {
  intake: later(async () => (await import('@/stations/intake/IntakeBench')).IntakeBench),
  datum: later(async () => (await import('@/stations/datum/DatumBench')).DatumBench),
  sorting: later(async () => (await import('@/stations/sorting/SortingBench')).SortingBench),
  reading: later(async () => (await import('@/stations/reading/ReadingBench')).ReadingBench),
  tracing: later(async () => (await import('@/stations/tracing/TracingBench')).TracingBench),
  proof: later(async () => (await import('@/stations/proof/ProofBench')).ProofBench),
  handover: later(async () => (await import('@/stations/handover/HandoverBench')).HandoverBench),
};

/** Elevations closer to zero than this are the ground's, metres. */
const atGround = 1e-6;

/** The level that is looked at: the chosen one, else the ground, else the lowest. */
function presentLevel(model: Model, levelId: string | null): LevelRow | undefined {
  const levels = levelsUp(model);
  return (
    levels.find(({ id }) => id === levelId) ??
    levels.find(({ elevation }) => Math.abs(elevation) < atGround) ??
    levels[0]
  );
}

/** The workspace, once a project is open. */
export function Desk() {
  const view = useView();
  const model = useModel('level');
  const present = presentLevel(model, view.levelId);
  const { scene, opening } = useBoardScene(present?.id ?? null);
  useMessages();
  useTellHere(present?.id ?? null);
  useActKeys();
  useReady();
  useFindingsKept(view.station === 'proof');
  useComparisonsKept(view.station === 'proof');
  useTrialKept();
  useLightKept();
  useHeatStale();
  useKeptOpen(present?.id ?? null);
  useReadingAt(view.station, scene);
  useFirstLook(scene.drawings.length);
  return (
    <Box sx={{ height: '100vh', display: 'flex', flexDirection: 'column', overflow: 'hidden' }}>
      <TopBar search={<DeskSearch />} others={<OthersHere />} />
      <Guide />
      <Box sx={{ flex: 1, minHeight: 0, display: 'flex' }}>
        <DeskRail />
        <Box component="main" sx={{ flex: 1, minWidth: 0, display: 'flex' }}>
          <Group orientation="horizontal" id="workspace" style={{ flex: 1, minWidth: 0 }}>
            {!view.benchFolded && <BenchPanel />}
            <Panel id="board" minSize="300px">
              <Box component="section" aria-label="Board" sx={{ height: '100%', position: 'relative' }}>
                <DeskBoard scene={scene} levelId={present?.id ?? null} />
              </Box>
            </Panel>
            {view.beside !== null && <BesidePanel />}
          </Group>
        </Box>
        <DeskLadder present={present?.id ?? null} />
      </Box>
      <DeskStatus scene={scene} level={present?.name ?? ''} opening={opening} />
    </Box>
  );
}

/** What will be asked soon is made ready while nobody needs the window. */
function useReady(): void {
  const { model } = useSession();
  const entries = useUnderlays((store) => store.entries);
  useEffect(() => readyMirror(model), [model]);
  useEffect(() => readyToSearch(model, entries), [model, entries]);
  useEffect(() => {
    const asked = requestIdleCallback(() => Object.values(benches).forEach(({ ready }) => ready()));
    return () => cancelIdleCallback(asked);
  }, []);
}

/** Finds and does everything. */
function DeskSearch() {
  const session = useSession();
  const scheme = useScheme();
  const commands = useRef<Command[]>([]);
  return (
    <FindOrDo
      begin={() => {
        commands.current = session.mayEdit ? commandsOf(session, scheme) : commandsToLook(session.model);
      }}
      find={(typed) => foundFor(session, commands.current, typed)}
    />
  );
}

/** Keeps drawings open, a level looked at and a drawing in hand. */
function useKeptOpen(levelId: string | null): void {
  const session = useSession();
  const moment = useMoment('drawing', 'placement', 'recipe', 'display');
  const looked = useUnderlays((store) => store.looked);
  const { set, ...view } = useView();
  useEffect(() => {
    useUnderlays.getState().open(session.id, moment.model, activeDrawings(moment.model));
  }, [session, moment, looked]);
  useEffect(() => {
    if (view.levelId === null && levelId !== null) set({ levelId });
  });
  // The drawing in hand stays in hand when another comes in.
  useEffect(() => {
    const inHand = drawingInHand(activeDrawings(moment.model), view.drawingId, levelId);
    if (inHand && inHand.id !== view.drawingId) set({ drawingId: inHand.id });
  });
}

/** Reading goes on at its own bench, and while lines are taken from drawings; what it found stays. */
function useReadingAt(station: StationName, scene: BoardScene): void {
  const moment = useMoment('drawing', 'placement', 'role', 'pick', 'library', 'project', 'element');
  const { drawings } = scene;
  const taking = useBoard((board) => board.tool.kind === 'take');
  // Marks have their sizes from the schedules of whatever sheets are open.
  const schedules = useUnderlays(({ entries }) => Object.values(entries).filter((e) => e.underlay?.schedules).length);
  // A drawing whose reading was forgotten is read again.
  const forgotten = useReadings(({ readings }) => drawings.filter(({ id }) => !readings[id]).length);
  useEffect(() => {
    if (station !== 'reading' && !taking) return;
    const { model } = moment;
    for (const { id, underlay } of drawings) {
      const drawing = model.drawing[id];
      if (drawing && model.placement[id]?.upright === null) useReadings.getState().refresh(model, drawing, underlay);
    }
  }, [station, taking, drawings, moment, forgotten, schedules]);
}

/** The building in the first drawing that is there is looked at, where no view was kept. */
function useFirstLook(drawings: number): void {
  const kept = useView((view) => view.camera !== null);
  const done = useRef(kept);
  const lookAt = useBoard((board) => board.lookAt);
  useEffect(() => {
    if (done.current || drawings === 0) return;
    done.current = true;
    lookAt('building');
  }, [drawings, lookAt]);
}

function DeskRail() {
  const mayEdit = useMayEdit();
  const moment = useMoment('drawing', 'placement', 'role', 'decision', 'element');
  const intakes = useFacts((facts) => facts.intakes);
  const readings = useReadings((store) => store.readings);
  const { station, set } = useView();
  const asked = useFindings((store) => store.findings !== null);
  const judged = useJudged();
  const unproven = useFindings((store) => store.stale);
  const comparing = useComparing();
  const stale = unproven || comparing;
  const stations = useMemo(
    () =>
      railStations(moment.model, intakes, {
        toJudge: openCandidates(moment.model, readings),
        proven: {
          findings: asked ? judged.filter(({ accepted }) => accepted === null).map(({ finding }) => finding) : null,
          stale,
        },
      }),
    [moment, intakes, readings, asked, judged, stale],
  );
  return (
    <CourseRail
      stations={mayEdit ? stations : stations.filter(({ name }) => stationsToLook.some((one) => one === name))}
      present={station}
      go={(name) => set({ station: name as StationName, benchFolded: false })}
    />
  );
}

function BenchPanel() {
  const { station, set } = useView();
  const mayEdit = useMayEdit();
  const { Part: Bench } = benches[mayEdit || stationsToLook.includes(station) ? station : 'intake'];
  return (
    <>
      <Panel id="bench" defaultSize="380px" minSize="280px" maxSize="60%">
        <Box component="section" aria-label="Bench" sx={benchStyle}>
          <Tooltip title="Fold the bench">
            <IconButton
              aria-label="Fold the bench"
              onClick={() => set({ benchFolded: true })}
              sx={{ position: 'absolute', right: 6, top: 8, zIndex: 1 }}
            >
              <Icon name="fold" />
            </IconButton>
          </Tooltip>
          <Suspense fallback={<Coming />}>
            <Bench key={station} />
          </Suspense>
        </Box>
      </Panel>
      <Separator style={separatorStyle} aria-label="Width of the bench" />
    </>
  );
}

function BesidePanel() {
  return (
    <>
      <Separator style={separatorStyle} aria-label="Width of the second view" />
      <Panel id="beside" defaultSize="36%" minSize="240px">
        <DeskBeside />
      </Panel>
    </>
  );
}

const benchStyle = {
  height: '100%',
  overflowY: 'auto',
  background: 'var(--mui-palette-zf-panel)',
  px: 2.25,
  py: 1.75,
  position: 'relative',
} as const;

const separatorStyle = {
  width: 4,
  borderLeft: '1px solid var(--mui-palette-divider)',
  background: 'var(--mui-palette-zf-board)',
  cursor: 'col-resize',
} as const;

function DeskStatus({ scene, level, opening }: { scene: BoardScene; level: string; opening: number }) {
  const moment = useMoment('element', 'decision');
  const readings = useReadings((store) => store.readings);
  const lengths = useLengths();
  const reading = useFacts(
    ({ intakes }) => intakes.filter(({ state }) => ['reading', 'waiting'].includes(state)).length,
  );
  const open = useMemo(
    () => (scene.candidates.length === 0 ? 0 : openCandidates(moment.model, readings)),
    [scene.candidates, moment, readings],
  );
  const lines = scene.drawings.reduce((sum, drawing) => sum + drawing.underlay.segments.layer.length, 0);
  const { index } = moment.model;
  // In a section an element that is cut twice is one.
  const elements =
    scene.plane === null
      ? index.countOnLevel(null) + (scene.levelId ? index.countOnLevel(scene.levelId) : 0)
      : new Set(Object.keys(scene.model.element).map((id) => id.split('#')[0])).size;
  const counts = [
    `${lines.toLocaleString('en')} lines`,
    ...(open > 0 ? [counted(open, 'candidate')] : []),
    `${elements} elements`,
  ];
  const work = [
    ...(reading > 0 ? [`reading ${counted(reading, 'file')}`] : []),
    ...(opening > 0 ? ['opening drawings'] : []),
  ];
  const upright = scene.heights !== null;
  return (
    <StatusLine
      hear={hearCursor}
      unit={lengths}
      axes={scene.axes}
      upright={upright}
      level={upright ? (scene.drawings[0]?.name ?? '') : level}
      counts={counts.join(', ')}
      work={work.join(', ')}
    />
  );
}
