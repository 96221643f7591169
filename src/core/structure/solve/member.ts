import type { FrameMember, PlaceLoad, SpreadLoad } from '../frame';
import { dot3, minus, size3, type V3 } from '../vector3';

/** Freedoms at both ends of a member. */
export const ends = 12;

/** The places of v, about z, and of w, about y, at the start and the end among a member's freedoms. */
const vFreedoms = [1, 5, 7, 11];
const wFreedoms = [2, 4, 8, 10];
/** A turn about y lowers what lies ahead: its shapes have the other sign. */
const vSigns = [1, 1, 1, 1];
const wSigns = [1, -1, 1, -1];

/** A released freedom that nothing else holds stays where it is: a pivot below this share of its diagonal. */
const leastPivot = 1e-12;

export const lengthOfMember = ({ ends: [a, b] }: FrameMember): number => size3(minus(b, a));

/** Bending of a straight member by the moves and turns of its ends, divided by E I (McGuire and others, ch. 4). */
const bending = (l: number): number[][] => [
  [12 / l ** 3, 6 / l ** 2, -12 / l ** 3, 6 / l ** 2],
  [6 / l ** 2, 4 / l, -6 / l ** 2, 2 / l],
  [-12 / l ** 3, -6 / l ** 2, 12 / l ** 3, -6 / l ** 2],
  [6 / l ** 2, 2 / l, -6 / l ** 2, 4 / l],
];

/** A member's stiffness in its own axes without its releases, 12 x 12, N/m, N and Nm. */
function plainStiffness(member: FrameMember): Float64Array {
  const k = new Float64Array(ends * ends);
  const l = lengthOfMember(member);
  const { ea, eiy, eiz, eiyz, gj } = member.rigidity;
  const along = (a: number, b: number, value: number): void => {
    k[a * ends + a] += value;
    k[b * ends + b] += value;
    k[a * ends + b] -= value;
    k[b * ends + a] -= value;
  };
  along(0, 6, ea / l);
  along(3, 9, gj / l);
  const shape = bending(l);
  const bend = (rows: number[], rowSigns: number[], columns: number[], signs: number[], ei: number): void => {
    for (let i = 0; i < 4; i += 1)
      for (let j = 0; j < 4; j += 1) k[rows[i] * ends + columns[j]] += ei * shape[i][j] * rowSigns[i] * signs[j];
  };
  bend(vFreedoms, vSigns, vFreedoms, vSigns, eiz);
  bend(wFreedoms, wSigns, wFreedoms, wSigns, eiy);
  if (eiyz !== 0) {
    bend(vFreedoms, vSigns, wFreedoms, wSigns, eiyz);
    bend(wFreedoms, wSigns, vFreedoms, vSigns, eiyz);
  }
  return k;
}

/** How the member's freedoms move with a place on it: four shapes of Hermite's, and their slopes. */
function hermite(x: number, l: number): { shape: number[]; slope: number[] } {
  const t = x / l;
  return {
    shape: [1 - 3 * t * t + 2 * t ** 3, l * (t - 2 * t * t + t ** 3), 3 * t * t - 2 * t ** 3, l * (t ** 3 - t * t)],
    slope: [(6 * t * t - 6 * t) / l, 1 - 4 * t + 3 * t * t, (6 * t - 6 * t * t) / l, 3 * t * t - 2 * t],
  };
}

/** A vector of the project in the axes of a member. */
export const inAxes = ({ axes }: FrameMember, v: V3): V3 => [dot3(axes[0], v), dot3(axes[1], v), dot3(axes[2], v)];

/** Adds what a force and a moment at a place do to the freedoms of the member's ends, in its own axes. */
function addAt(into: Float64Array, x: number, l: number, [fx, fy, fz]: V3, [mx, my, mz]: V3): void {
  const t = x / l;
  into[0] += fx * (1 - t);
  into[6] += fx * t;
  into[3] += mx * (1 - t);
  into[9] += mx * t;
  const { shape, slope } = hermite(x, l);
  for (let i = 0; i < 4; i += 1) {
    into[vFreedoms[i]] += vSigns[i] * (fy * shape[i] + mz * slope[i]);
    into[wFreedoms[i]] += wSigns[i] * (fz * shape[i] - my * slope[i]);
  }
}

/** Three points of Gauss and Legendre on 0 to 1, exact for the products that come up here, of degree 4. */
const gauss: readonly (readonly [at: number, weight: number])[] = [
  [0.5 - Math.sqrt(0.15), 5 / 18],
  [0.5, 8 / 18],
  [0.5 + Math.sqrt(0.15), 5 / 18],
];

const mixed = (a: V3, b: V3, share: number, factor: number): V3 => [
  (a[0] + (b[0] - a[0]) * share) * factor,
  (a[1] + (b[1] - a[1]) * share) * factor,
  (a[2] + (b[2] - a[2]) * share) * factor,
];

/** The loads of a member in its own axes. */
export interface OwnLoads {
  spread: readonly { from: number; to: number; force: readonly [V3, V3]; moment: readonly [V3, V3] }[];
  places: readonly { at: number; force: V3; moment: V3 }[];
}

export const noLoads: OwnLoads = { spread: [], places: [] };

/** Loads in a member's own axes. */
export function ownLoads(member: FrameMember, spread: readonly SpreadLoad[], places: readonly PlaceLoad[]): OwnLoads {
  const both = ([a, b]: readonly [V3, V3]): readonly [V3, V3] => [inAxes(member, a), inAxes(member, b)];
  return {
    spread: spread.map(({ from, to, force, moment }) => ({ from, to, force: both(force), moment: both(moment) })),
    places: places.map(({ at, force, moment }) => ({
      at,
      force: inAxes(member, force),
      moment: inAxes(member, moment),
    })),
  };
}

/** What loads do to the ends of a member that is held at both: the forces that stand for them there. */
function equivalent({ spread, places }: OwnLoads, l: number): Float64Array {
  const f = new Float64Array(ends);
  for (const { from, to, force, moment } of spread)
    for (const [at, weight] of gauss) {
      const share = weight * (to - from);
      addAt(f, from + (to - from) * at, l, mixed(...force, at, share), mixed(...moment, at, share));
    }
  for (const { at, force, moment } of places) addAt(f, at, l, force, moment);
  return f;
}

/** A member's stiffness with its releases taken out, and how forces on it are passed on to what is left. */
export interface Stiffness {
  k: Float64Array;
  /** Takes the released freedoms out of forces at the ends, in place. */
  condense: (f: Float64Array) => void;
}

/** Takes the released freedoms out one after another (McGuire, Gallagher and Ziemian, ch. 13). */
export function stiffnessOf(member: FrameMember): Stiffness {
  const k = plainStiffness(member);
  const steps: { at: number; row: Float64Array; pivot: number }[] = [];
  const { released } = member;
  for (let r = 0; r < ends; r += 1) {
    if (!released[r]) continue;
    const pivot = k[r * ends + r];
    const row = k.slice(r * ends, (r + 1) * ends);
    const holds = pivot > leastPivot * Math.abs(plainDiagonal(member, r));
    steps.push({ at: r, row, pivot: holds ? pivot : Infinity });
    for (let i = 0; i < ends; i += 1)
      for (let j = 0; j < ends; j += 1) if (holds && i !== r && j !== r) k[i * ends + j] -= (row[i] * row[j]) / pivot;
    for (let i = 0; i < ends; i += 1) k[r * ends + i] = k[i * ends + r] = 0;
  }
  return {
    k,
    condense(f) {
      for (const { at, row, pivot } of steps) {
        const own = f[at];
        for (let i = 0; i < ends; i += 1) f[i] -= (row[i] * own) / pivot;
        f[at] = 0;
      }
    },
  };
}

/** The size of what resists at a freedom, to hold a pivot against. */
function plainDiagonal(member: FrameMember, freedom: number): number {
  const l = lengthOfMember(member);
  const { ea, eiy, eiz, gj } = member.rigidity;
  const of = [ea / l, (12 * eiz) / l ** 3, (12 * eiy) / l ** 3, gj / l, (4 * eiy) / l, (4 * eiz) / l];
  return of[freedom % 6];
}

/** What loads of a member do to its ends, in its own axes, with its releases. */
export function endForces(member: FrameMember, { condense }: Stiffness, loads: OwnLoads): Float64Array {
  const f = equivalent(loads, lengthOfMember(member));
  condense(f);
  return f;
}

/** Forces inside a member at a station: N, Vy, Vz, T, My, Mz as `docs/structure.md` has their signs. N and Nm. */
export type Inner = readonly [n: number, vy: number, vz: number, t: number, my: number, mz: number];

/**
 * The forces inside a member at places along it, from those at its start and the loads between.
 * @param q the forces that act on the member's start, in its own axes
 * @param before whether a load at just that place still lies ahead
 */
export function innerForces(q: Float64Array, { spread, places }: OwnLoads, x: number, before = false): Inner {
  let [n, vy, vz, t, my, mz] = [-q[0], q[1], q[2], -q[3], q[4] + q[2] * x, -q[5] + q[1] * x];
  const take = (at: number, force: V3, moment: V3): void => {
    n -= force[0];
    vy += force[1];
    vz += force[2];
    t -= moment[0];
    my += force[2] * (x - at) + moment[1];
    mz += force[1] * (x - at) - moment[2];
  };
  for (const { from, to, force, moment } of spread) {
    if (x <= from) continue;
    const end = Math.min(x, to);
    for (const [at, weight] of gauss) {
      const place = from + (end - from) * at;
      const share = (place - from) / (to - from);
      const size = weight * (end - from);
      take(place, mixed(...force, share, size), mixed(...moment, share, size));
    }
  }
  for (const { at, force, moment } of places) if (at < x || (at === x && !before)) take(at, force, moment);
  return [n, vy, vz, t, my, mz];
}
