import type { GridLine } from '@/core/model/elements';
import { columnOutline } from '@/core/model/elements';
import { distance } from '@/core/geometry/vector';
import { defaultTolerance, type Tolerance } from '@/core/tolerance';
import type { LengthUnit } from '@/core/units/length';
import { readBeams } from './beams/readBeams';
import type { Candidate, Unread } from './candidate';
import { readColumns } from './columns/readColumns';
import { readGrid } from './grid/readGrid';
import { readOutdoor } from './outdoor/readOutdoor';
import type { Role } from '@/core/sorting/roles';
import type { Scene } from './scene';
import { defaultSettings, type ReadingSettings } from './settings';
import { readSlabs } from './slabs/readSlabs';
import { readWalls, type Obstacle } from './walls/readWalls';
import { readZones } from './zones/readZones';

/** What was read, what lies on a role and was not understood, and how many entities lie on each role. */
export interface ReadingResult { candidates: Candidate[]; unread: Unread[]; drawn: Partial<Record<Role, number>> }

/** The tolerances for a drawing in a unit: sizes drawn in inches or feet are rounded to quarter inches, others to 5 mm. */
export function toleranceFor(unit: LengthUnit): Tolerance {
  const imperial = unit === 'in' || unit === 'ft';
  return imperial ? { ...defaultTolerance, roundingModule: 0.0254 / 4, rounding: 0.0254 / 8 } : defaultTolerance;
}

/**
 * Reads everything that the roles of a drawing ask for, each kind from those before it: columns know the grid, walls the columns, zones and slabs the walls.
 * @param accepted grid lines that are part of the model; they come before the ones read
 */
export function read(scene: Scene, accepted: readonly GridLine[], tolerance: Tolerance, settings: ReadingSettings = defaultSettings): ReadingResult {
  const grid = readGrid(scene, tolerance);
  const known = new Set(accepted.map((line) => line.label));
  const lines = [...accepted, ...grid.candidates.map((candidate) => candidate.element).filter((line) => !known.has(line.label))];
  const columns = readColumns(scene, lines, tolerance);
  const obstacles = columns.candidates.map(({ element }): Obstacle => ({ at: element.position, reach: Math.max(...columnOutline(element).map((corner) => distance(corner, element.position))) }));
  const walls = readWalls(scene, obstacles, settings, tolerance);
  const beams = readBeams(scene, obstacles, walls.segments, settings, tolerance);
  const zones = readZones(scene, walls.segments, settings, tolerance.gap);
  const slabs = readSlabs(scene, zones.outlines, settings, tolerance.gap);
  const outdoor = readOutdoor(scene, settings, tolerance.gap);
  return {
    candidates: [...grid.candidates, ...columns.candidates, ...beams.candidates, ...walls.walls, ...walls.openings, ...slabs.candidates, ...zones.candidates, ...outdoor.candidates],
    unread: [...grid.unread, ...columns.unread, ...beams.unread, ...walls.unread, ...slabs.unread, ...outdoor.unread],
    drawn: Object.fromEntries((['grid', 'column', 'beam', 'wall', 'slab', 'outdoor'] as const).map((role) => [role, new Set(scene.paths(role).map(({ entity, handle }) => `${handle}/${entity}`)).size])),
  };
}
