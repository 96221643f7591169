import { radians } from '@/core/geometry/vector';
import { eachSide } from '../pieces';
import { pathCount, type Primitives } from '../primitives';
import { loosened, untouched, type StepResult } from './edit';

const quarter = Math.PI / 2;
const bins = 1800;

/**
 * The main directions of a plan, modulo a quarter turn, in radians: where at least a twentieth of the length of all
 * straight lines
 * lies within the tolerance. Each is the direction that most of that length has exactly.
 */
export function mainDirections(p: Primitives, tolerance: number): number[] {
  const histogram = new Float64Array(bins);
  const sides: { angle: number; length: number }[] = [];
  let total = 0;
  eachSide(p, (_, v, next) => {
    if (p.bulge[v] !== 0) return;
    const [dx, dy] = [p.xy[2 * next] - p.xy[2 * v], p.xy[2 * next + 1] - p.xy[2 * v + 1]];
    const length = Math.hypot(dx, dy);
    if (length === 0) return;
    const angle = within(Math.atan2(dy, dx));
    histogram[Math.floor((angle / quarter) * bins) % bins] += length;
    sides.push({ angle, length });
    total += length;
  });
  const reach = Math.max(1, Math.round((tolerance / quarter) * bins));
  const sum = (bin: number) => {
    let here = 0;
    for (let k = -reach; k <= reach; k += 1) here += histogram[(bin + k + bins) % bins];
    return here;
  };
  const directions: number[] = [];
  const taken = new Uint8Array(bins);
  for (;;) {
    let best = -1;
    for (let bin = 0; bin < bins; bin += 1)
      if (taken[bin] === 0 && (best < 0 || histogram[bin] > histogram[best])) best = bin;
    if (best < 0 || histogram[best] === 0 || directions.length >= 6) break;
    const weight = sum(best);
    for (let k = -2 * reach; k <= 2 * reach; k += 1) taken[(best + k + bins) % bins] = 1;
    if (weight < total / 20) break;
    directions.push(exactDirection(sides, ((best + 0.5) / bins) * quarter, tolerance));
  }
  return directions;
}

const within = (angle: number): number => ((angle % quarter) + quarter) % quarter;

/** The difference of two directions modulo a quarter turn, in (-45, 45] degrees. */
const turnBetween = (from: number, to: number): number => {
  const d = within(to - from);
  return d > quarter / 2 ? d - quarter : d;
};

/** The direction near one that most length has, to a millionth of a radian. */
function exactDirection(sides: readonly { angle: number; length: number }[], about: number, tolerance: number): number {
  const weights = new Map<number, { length: number; sum: number }>();
  for (const { angle, length } of sides) {
    const turn = turnBetween(about, angle);
    if (Math.abs(turn) > tolerance) continue;
    const key = Math.round(turn * 1e6);
    const entry = weights.get(key) ?? weights.set(key, { length: 0, sum: 0 }).get(key)!;
    entry.length += length;
    entry.sum += turn * length;
  }
  let best = { length: 0, sum: 0 };
  for (const entry of weights.values()) if (entry.length > best.length) best = entry;
  const direction = within(about + (best.length > 0 ? best.sum / best.length : 0));
  // The plan's own axes are meant exactly.
  return Math.min(direction, quarter - direction) < 2e-6 ? 0 : direction;
}

/** Below this a side is parallel already, radians. */
const parallel = 1e-9;

/**
 * Turns straight sides within an angle of a main direction into it, each about its middle; corners move along.
 * @param angle in degrees
 */
export function straighten(p: Primitives, angle: number): StepResult {
  const tolerance = radians(angle);
  const directions = mainDirections(p, tolerance);
  if (directions.length === 0) return untouched(p);
  const next = loosened(p);
  const touched = new Uint8Array(pathCount(p));
  for (let pass = 0; pass < 12; pass += 1) {
    let moved = false;
    eachSide(next, (path, v, w) => {
      if (next.bulge[v] !== 0 || v === w) return;
      const xy = next.xy;
      const [dx, dy] = [xy[2 * w] - xy[2 * v], xy[2 * w + 1] - xy[2 * v + 1]];
      const side = Math.atan2(dy, dx);
      const turn = nearestTurn(directions, side);
      if (turn === null || Math.abs(turn) > tolerance || Math.abs(turn) < parallel) return;
      // The last turns of a chain of sides are nothing but rounding.
      if (Math.abs(turn) * Math.hypot(dx, dy) < 1e-12 * (Math.abs(xy[2 * v]) + Math.abs(xy[2 * v + 1]) + 1)) return;
      const target = side + turn;
      const [nx, ny] = [-Math.sin(target), Math.cos(target)];
      const off = (dx * nx + dy * ny) / 2;
      xy[2 * v] += nx * off;
      xy[2 * v + 1] += ny * off;
      xy[2 * w] -= nx * off;
      xy[2 * w + 1] -= ny * off;
      touched[path] = 1;
      moved = true;
    });
    if (!moved) break;
  }
  const paths = [...touched.keys()].filter((path) => touched[path] === 1);
  return paths.length === 0 ? untouched(p) : { primitives: next, paths, texts: [] };
}

function nearestTurn(directions: readonly number[], side: number): number | null {
  let best: number | null = null;
  for (const direction of directions) {
    const turn = turnBetween(side, direction);
    if (best === null || Math.abs(turn) < Math.abs(best)) best = turn;
  }
  return best;
}
