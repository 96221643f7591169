import type { Place } from '@/core/bodies/shell';
import { isFar, type LitRoom, type Patch } from './room';

/** What a small piece throws onto a place with a normal, as a share: as a disc, so that near ones stay below one. */
function shareOf(p: Place, normal: Place, q: Place, other: Place, area: number): number {
  const [x, y, z] = [q[0] - p[0], q[1] - p[1], q[2] - p[2]];
  const square = x * x + y * y + z * z;
  if (square === 0) return 0;
  const out = x * normal[0] + y * normal[1] + z * normal[2];
  const into = -(x * other[0] + y * other[1] + z * other[2]);
  return out <= 0 || into <= 0 ? 0 : (out * into * area) / (square * (Math.PI * square + area));
}

/** What goes from one patch to another, as a share of all that leaves it, times the area it leaves from. */
function exchange(a: Patch, b: Patch): number {
  if (isFar(a.centre, b) && isFar(b.centre, a)) return a.area * shareOf(a.centre, a.normal, b.centre, b.normal, b.area);
  let sum = 0;
  const part = b.area / b.samples.length;
  for (const p of a.samples) for (const q of b.samples) sum += shareOf(p, a.normal, q, b.normal, part);
  return (a.area * sum) / a.samples.length;
}

/** How often the exchange is made even, and how near to even it has to be. */
const [mostRounds, evenWithin] = [200, 1e-7];

/**
 * The exchange between all patches of a closed room, symmetric, its rows adding up to the areas: form factors that add
 * to one and are reciprocal, so that no light is lost or made (scaled as by Sinkhorn).
 */
export function exchanges({ patches, sees }: LitRoom): Float64Array {
  const n = patches.length;
  const s = new Float64Array(n * n);
  for (let i = 0; i < n; i += 1)
    for (let j = i + 1; j < n; j += 1) {
      if (!sees(patches[i].centre, patches[j].centre)) continue;
      const value = (exchange(patches[i], patches[j]) + exchange(patches[j], patches[i])) / 2;
      s[i * n + j] = value;
      s[j * n + i] = value;
    }
  const scale = new Float64Array(n).fill(1);
  for (let round = 0; round < mostRounds; round += 1) {
    let worst = 0;
    for (let i = 0; i < n; i += 1) {
      let sum = 0;
      for (let j = 0; j < n; j += 1) sum += s[i * n + j] * scale[j];
      if (sum === 0) continue;
      const next = patches[i].area / sum;
      worst = Math.max(worst, Math.abs(next / scale[i] - 1));
      // Half of the way, so that the two sides of a pair do not swing.
      scale[i] = Math.sqrt(next * scale[i]);
    }
    if (worst < evenWithin) break;
  }
  for (let i = 0; i < n; i += 1) for (let j = 0; j < n; j += 1) s[i * n + j] *= scale[i] * scale[j];
  return s;
}

/** Light goes on being reflected until so little is left, as a share. */
const restsWithin = 1e-7;

/** The illuminance of all patches, reflected light included. @param direct of each, lux */
export function illuminances({ patches }: LitRoom, s: Float64Array, direct: Float64Array): Float64Array {
  const n = patches.length;
  const total = Float64Array.from(direct);
  const most = direct.reduce((greatest, value) => Math.max(greatest, value), 0);
  for (let round = 0; round < mostRounds; round += 1) {
    let moved = 0;
    for (let i = 0; i < n; i += 1) {
      let sum = 0;
      for (let j = 0; j < n; j += 1) sum += s[i * n + j] * patches[j].reflectance * total[j];
      const next = direct[i] + sum / patches[i].area;
      moved = Math.max(moved, Math.abs(next - total[i]));
      total[i] = next;
    }
    if (moved <= restsWithin * most) break;
  }
  return total;
}

/** What the patches of a room throw back onto a place with a normal, lux; the shares of them add up to one. */
export function reflectedAt({ patches, sees }: LitRoom, total: Float64Array, p: Place, normal: Place): number {
  let [light, shares] = [0, 0];
  patches.forEach((patch, j) => {
    const far = isFar(p, patch);
    const from = far ? [patch.centre] : patch.samples;
    const part = patch.area / from.length;
    let share = 0;
    for (const q of from) share += shareOf(p, normal, q, patch.normal, part);
    if (share === 0 || !sees(p, patch.centre)) return;
    shares += share;
    light += share * patch.reflectance * total[j];
  });
  return shares === 0 ? 0 : light / shares;
}
