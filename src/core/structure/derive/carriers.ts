import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { contains } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import { awayFromLine } from '@/core/kinds/lines';
import type { PlaceLoad, SpreadLoad } from '../frame';
import { between, cross3, minus, plus, times, zero, type V3 } from '../vector3';
import { Divisions } from './alike';
import type { Axis } from './axes';
import type { PlaceOnMember, Skeleton } from './skeleton';
import type { Carrier, Patch } from './tributary';

/** A floor as its carriers see it. */
export interface Floor {
  outline: readonly Point[];
  holes: readonly (readonly Point[])[];
  /** Of its top, metres. */
  z: number;
  thickness: number;
}

/** Beams and heads of columns carry a floor from as far below its top as this beyond its thickness, metres, */
const belowFloor = 0.5;
/** and from as far above it; */
const aboveFloor = 0.1;
/** beside its edge they carry it within this, metres. */
const besideEdge = 0.3;
/** What rises by more than this share of its run is no line to lie on. */
const steepest = 0.3;
/** A beam tells what it carries apart over pieces of about this length, metres. */
const told = 0.5;

const inPlan = ([x, y]: V3): Point => [x, y];

/** Finds what carries, and turns what it takes into loads of members. */
export class Carriers {
  readonly divisions = new Divisions();
  private readonly index: BoxIndex<number>;

  constructor(private readonly skeleton: Skeleton) {
    this.index = new BoxIndex([...skeleton.axes.keys()], (i) => skeleton.axes[i].box);
  }

  /** What carries a floor. */
  of(floor: Floor): Carrier[] {
    const [x1, y1, x2, y2] = boxOf(floor.outline, besideEdge);
    return this.index
      .touching([x1, y1, x2, y2])
      .sort((a, b) => a - b)
      .filter((i) => this.carries(this.skeleton.axes[i], floor))
      .map((i) => this.carrier(i));
  }

  private carries(axis: Axis, floor: Floor): boolean {
    const { start, end, kind, line } = axis;
    const under = floor.z - floor.thickness - belowFloor;
    const beneath = (p: Point): boolean =>
      contains(floor.outline, p) || awayFromLine([...floor.outline, floor.outline[0]], p) <= besideEdge;
    if (kind !== 'beam') {
      const [low, high] = [Math.min(start[2], end[2]), Math.max(start[2], end[2])];
      const places = line === null ? [inPlan(start)] : [line[0], line[1], inPlan(start)];
      return low < under + belowFloor - besideEdge && high >= under && places.some(beneath);
    }
    const run = Math.hypot(end[0] - start[0], end[1] - start[1]);
    if (run === 0 || Math.abs(end[2] - start[2]) > steepest * run) return false;
    return [0.02, 0.5, 0.98].some((share) => {
      const [x, y, z] = between(start, end, share);
      return z >= under && z <= floor.z + aboveFloor && beneath([x, y]);
    });
  }

  /** An axis as something to lie on. */
  private carrier(i: number): Carrier {
    const { start, end, kind, line, length } = this.skeleton.axes[i];
    if (kind === 'column') return { axis: i, a: inPlan(start), b: inPlan(start), cuts: [] };
    if (line !== null) return { axis: i, a: line[0], b: line[1], cuts: [] };
    const cuts = this.skeleton.pieces[i].flatMap(({ from, to }) => {
      const count = binsOf(to - from);
      return Array.from({ length: count }, (_, k) => (from + ((to - from) * (k + 1)) / count) / length);
    });
    return { axis: i, a: inPlan(start), b: inPlan(end), cuts: cuts.slice(0, -1) };
  }

  /**
   * Gathers the loads of members under a floor's parts, for one newton a square metre downwards; what lies over passes
   * its moment on.
   * @param z where the floor lies on what stands, metres
   */
  gathering(carriers: readonly Carrier[], z: number): { take: (patch: Patch) => void; loads: () => UnitLoads } {
    const bins = new Map<number, Bin>();
    const places = new Map<string, PlaceLoad>();
    return {
      take: (patch) => {
        const { axis } = carriers[patch.carrier];
        const own = this.skeleton.axes[axis];
        const force: V3 = [0, 0, -patch.area];
        const moment = patch.over
          ? cross3([patch.centre[0] - patch.foot[0], patch.centre[1] - patch.foot[1], 0], force)
          : zero;
        if (own.kind === 'beam') this.toBin(bins, axis, patch.share * own.length, -patch.area, moment);
        else addPlace(places, this.onUpright(axis, [...patch.foot, z], force, moment));
      },
      loads: () => {
        const sorted = [...bins].sort(([a], [b]) => a - b).map(([, bin]) => spreadBin(bin));
        return { spread: merged(sorted), places: [...places.values()] };
      },
    };
  }

  /** A load on something that stands, at a height of it, with the moment of where it rests. */
  onUpright(axis: number, at: V3, force: V3, moment: V3): PlaceLoad {
    const { start, end, length } = this.skeleton.axes[axis];
    const up = Math.max(0, Math.min(1, (at[2] - start[2]) / (end[2] - start[2] || 1)));
    const own = between(start, end, up);
    const arm = minus([at[0], at[1], own[2]], own);
    const { member, at: along } = this.placeOn(axis, up * length);
    return { member, at: along, force, moment: plus(moment, cross3(arm, force)) };
  }

  /** The member of an axis at a place, and how far along it that is. */
  placeOn(axis: number, at: number): PlaceOnMember {
    const pieces = this.skeleton.pieces[axis];
    const piece = pieces.find(({ to }) => at <= to) ?? pieces[pieces.length - 1];
    return { member: piece.member, at: Math.max(0, Math.min(piece.to, at) - piece.from) };
  }

  private toBin(bins: Map<number, Bin>, axis: number, at: number, force: number, moment: V3): void {
    const pieces = this.skeleton.pieces[axis];
    const piece = pieces.find(({ to }) => at <= to) ?? pieces[pieces.length - 1];
    const length = piece.to - piece.from;
    const count = binsOf(length);
    const along = Math.max(0, Math.min(length, at - piece.from));
    const k = Math.min(count - 1, Math.floor((along / length) * count));
    const key = piece.member * (mostBins + 1) + k;
    let bin = bins.get(key);
    if (bin === undefined) {
      bin = {
        member: piece.member,
        from: (k * length) / count,
        to: ((k + 1) * length) / count,
        force: 0,
        about: 0,
        moment: zero,
      };
      bins.set(key, bin);
    }
    bin.force += force;
    bin.about += force * (along - (bin.from + bin.to) / 2);
    if (moment !== zero) bin.moment = plus(bin.moment, moment);
  }
}

/** Loads of members for one newton a square metre. */
export interface UnitLoads {
  spread: SpreadLoad[];
  places: PlaceLoad[];
}

/** A stretch of a member with the sum of what rests on it, N downwards, and its moment about the stretch's middle. */
interface Bin {
  member: number;
  from: number;
  to: number;
  force: number;
  about: number;
  moment: V3;
}

/** More stretches than these no member is told apart in. */
const mostBins = 64;

/** An even number, so that the middle of a member is a border. */
const binsOf = (length: number): number => 2 * Math.max(1, Math.min(mostBins / 2, Math.ceil(length / (2 * told))));

/** What rests on a stretch as a load that runs straight over it, with the same sum and the same moment. */
function spreadBin({ member, from, to, force, about, moment }: Bin): SpreadLoad {
  const size = to - from;
  const [mean, slope] = [force / size, (6 * about) / (size * size)];
  const per = times(moment, 1 / size);
  return {
    member,
    from,
    to,
    force: [
      [0, 0, mean - slope],
      [0, 0, mean + slope],
    ],
    moment: [per, per],
  };
}

/** Loads differ from one straight run by less than this share of their size: rounding. */
const straight = 1e-6;

/** Loads on stretches one after another that run on straight become one. */
function merged(sorted: readonly SpreadLoad[]): SpreadLoad[] {
  const out: SpreadLoad[] = [];
  for (const load of sorted) {
    const last = out[out.length - 1];
    if (last !== undefined && runsOn(last, load))
      out[out.length - 1] = { ...last, to: load.to, force: [last.force[0], load.force[1]] };
    else out.push(load);
  }
  return out;
}

function runsOn(a: SpreadLoad, b: SpreadLoad): boolean {
  if (a.member !== b.member || Math.abs(a.to - b.from) > 1e-9) return false;
  const [a0, a1, b0, b1] = [a.force[0][2], a.force[1][2], b.force[0][2], b.force[1][2]];
  const size = straight * Math.max(Math.abs(a0), Math.abs(a1), Math.abs(b0), Math.abs(b1));
  const slope = (a1 - a0) / (a.to - a.from);
  const next = (b1 - b0) / (b.to - b.from);
  const turns = [0, 1, 2].some((i) => Math.abs(a.moment[0][i] - b.moment[0][i]) > size);
  return !turns && Math.abs(a1 - b0) <= size && Math.abs(slope - next) * (b.to - b.from) <= size;
}

/** Loads at one place of a member become one. */
function addPlace(places: Map<string, PlaceLoad>, load: PlaceLoad): void {
  const key = `${load.member}/${load.at}`;
  const before = places.get(key);
  places.set(
    key,
    before === undefined
      ? load
      : { ...before, force: plus(before.force, load.force), moment: plus(before.moment, load.moment) },
  );
}
