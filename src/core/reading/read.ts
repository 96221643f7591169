import { pushAll } from '@/core/lists';
import { columnOutline } from '@/core/kinds/column';
import { readKinds, type ElementKind } from '@/core/kinds/element';
import type { GridLine } from '@/core/kinds/grid';
import { distance } from '@/core/geometry/vector';
import type { Role } from '@/core/sorting/roles';
import type { Tolerance } from '@/core/tolerance';
import { readBeams } from './beams/readBeams';
import type { ScheduleSheet } from './beams/schedule';
import type { Candidate, Unread } from './candidate';
import { readColumns } from './columns/readColumns';
import { readGrid } from './grid/readGrid';
import { applyMeanings, type Meaning } from './meanings';
import { readLuminaires } from './luminaires/readLuminaires';
import { readOutdoor } from './outdoor/readOutdoor';
import type { Answer } from '@/core/sorting/answers';
import type { Scene } from './scene';
import { defaultSettings, type ReadingSettings } from '@/core/patterns/settings';
import { readTerrain } from './terrain/readTerrain';
import { readSlabs } from './slabs/readSlabs';
import { alongWhich, noWallsAround, withBearing, type WallsAround } from './walls/bearing';
import { wallStages } from './walls/readWalls';
import type { Obstacle } from './walls/obstacle';
import { readZones } from './zones/readZones';

/**
 * What was read, what lies on a role and was not understood, how many entities lie on each role and layer, and, where
 * reading was stopped, the kinds that it had not come to.
 */
export interface ReadingResult {
  candidates: Candidate[];
  unread: Unread[];
  drawn: Drawn;
  left: ElementKind[];
}

/** How many entities lie on each layer, by its number, with a role. */
export type Drawn = Partial<Record<Role, Record<number, number>>>;

/** Where a reading is: what it is about to do, and what it has. */
export interface ReadingStage {
  doing: string;
  done: number;
  of: number;
  soFar: ReadingResult;
}

/** What reading is told besides the drawing. */
export interface ReadingTask {
  scene: Scene;
  /** Grid lines that are part of the model; they come before the ones read. */
  accepted?: readonly GridLine[];
  tolerance: Tolerance;
  settings?: ReadingSettings;
  /** What a layer means beyond its role, by its number. */
  meanings?: readonly (Meaning | null)[];
  /** Walls of other drawings and levels, to tell by whether those read carry. */
  around?: WallsAround;
  /** What was said of things that the drawing does not decide. */
  answers?: readonly Answer[];
  /** Schedules of other sheets, by which marks have sizes. */
  linked?: readonly ScheduleSheet[];
  /** The elevation of the project's zero in the survey, metres: heights of the ground may be written above its zero. */
  zero?: number;
  /** Grid lines and columns that were read of the same paths before, under other roles of the rest. */
  frames?: Map<string, Frame>;
}

/** What walls and beams are read after. */
interface Frame {
  grid: ReturnType<typeof readGrid>;
  columns: ReturnType<typeof readColumns>;
}

/** Steps of a reading, walls counting for three. */
const stages = 12;

/**
 * Reads everything that the roles of a drawing ask for, each kind from those before it: columns know the grid, walls
 * the columns, zones and slabs the walls.
 * Between two stages it can be left with what it has.
 */
export function* readStages({
  scene,
  accepted = [],
  tolerance,
  settings = defaultSettings,
  meanings = [],
  around = noWallsAround,
  linked = [],
  answers = [],
  zero = 0,
  frames,
}: ReadingTask): Generator<ReadingStage, ReadingResult> {
  const [candidates, unread]: [Candidate[], Unread[]] = [[], []];
  const read = new Set<ElementKind>();
  const drawn: Drawn = {};
  const add = (kinds: ElementKind[], found: readonly Candidate[], missed: readonly Unread[] = []) => {
    pushAll(
      candidates,
      meanings.some((meaning) => meaning !== null && meaning !== undefined)
        ? applyMeanings(found, scene, meanings)
        : found,
    );
    pushAll(unread, missed);
    for (const kind of kinds) read.add(kind);
  };
  let done = 0;
  const at = (doing: string): ReadingStage => ({
    doing,
    done: done++,
    of: stages,
    soFar: {
      candidates: [...candidates],
      unread: [...unread],
      drawn,
      left: readKinds.filter((kind) => !read.has(kind)),
    },
  });

  const sorting = at('sorting lines');
  yield sorting;
  const sorted = scene.sorted();
  while (!sorted.next().done) yield sorting;
  for (const [role, layers] of scene.drawn()) drawn[role] = Object.fromEntries(layers);
  yield at('grid lines');
  const before = frames?.get(scene.frameKey());
  const grid = before?.grid ?? readGrid(scene, tolerance);
  add(['grid'], grid.candidates, grid.unread);
  const known = new Set(accepted.map((line) => line.label));
  const lines = [
    ...accepted,
    ...grid.candidates.map((candidate) => candidate.element).filter((line) => !known.has(line.label)),
  ];
  yield at('columns');
  const columns = before?.columns ?? readColumns(scene, lines, settings, tolerance, answers);
  frames?.set(scene.frameKey(), { grid, columns });
  add(['column'], columns.candidates, columns.unread);
  const obstacles = columns.candidates.map(({ element }): Obstacle => ({
    at: element.position,
    reach: Math.max(...columnOutline(element).map((corner) => distance(corner, element.position))),
  }));
  const walling = wallStages(scene, obstacles, settings, tolerance, answers);
  let walls = walling.next();
  while (!walls.done) {
    yield at(walls.value);
    walls = walling.next();
  }
  const [below, structural] = [alongWhich(around.below), alongWhich(around.structural)];
  const { layers: layersOfWalls } = walls.value;
  const told = withBearing(walls.value.walls, ({ element }, i) => {
    const layers = layersOfWalls[i];
    return {
      layers: layers.map((layer) => scene.drawing.layers[layer].name),
      meaning: layers.map((layer) => meanings[layer] ?? null).find((meaning) => meaning !== null) ?? null,
      below: below(element),
      structural: structural(element),
    };
  });
  add(['wall', 'opening'], [...told, ...walls.value.openings], walls.value.unread);
  const { segments } = walls.value;
  yield at('beams');
  const beams = readBeams(scene, obstacles, segments, settings, tolerance, linked);
  add(['beam'], beams.candidates, beams.unread);
  yield at('zones');
  const marks = new Set([...columns.candidates, ...beams.candidates].flatMap(({ handles }) => handles));
  const zones = readZones(scene, segments, settings, tolerance.gap, marks);
  add(['zone'], zones.candidates, zones.unread);
  yield at('slabs');
  const slabs = readSlabs(scene, zones.outlines, settings, tolerance.gap, columns.voids);
  add(['slab'], slabs.candidates, slabs.unread);
  yield at('outdoor surfaces');
  const outdoor = readOutdoor(scene, settings, tolerance.gap);
  add(['outdoor'], outdoor.candidates, outdoor.unread);
  yield at('luminaires');
  const luminaires = readLuminaires(scene);
  add(['luminaire'], luminaires.candidates, luminaires.unread);
  yield at('terrain');
  const terrain = readTerrain(scene, zero);
  add(['contour'], terrain.candidates, terrain.unread);
  return at('').soFar;
}

/** Reads all at once. */
export function read(task: ReadingTask): ReadingResult {
  const reading = readStages(task);
  for (;;) {
    const step = reading.next();
    if (step.done) return step.value;
  }
}
