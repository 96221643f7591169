import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { GroundSurface } from '@/core/geometry/groundSurface';
import { contains } from '@/core/geometry/polygon';
import { lineCrossing, pointAlong, type Point } from '@/core/geometry/vector';
import type { ReadModel } from '@/core/handover/model/readModel';
import { outdoorUseOf } from '@/core/kinds/outdoorUse';
import type { Stretch } from './stretches';

/** A stretch with the ground before it. */
export interface Standing extends Stretch {
  /** Elevation, metres. */
  ground: number;
  /** Whether contours or spot heights say so. */
  measured: boolean;
}

/** The ground before a wall is looked at this far from its outer face, metres. */
const before = 0.5;
/** Shorter pieces go with the one before, shares of the stretch. */
const least = 1e-6;

interface Surface {
  outline: Point[];
  elevation: number;
}

/** Sloping ground is taken as steps no higher than this, metres. */
const step = 0.25;

/**
 * The ground about a building: surfaces outside that are said to be ground, at their height; else what contours and
 * spot heights measure; else its level.
 */
export class Terrain {
  private readonly index: BoxIndex<Surface>;
  private readonly measured: GroundSurface;

  constructor(
    { outdoor, levels, terrain = [] }: ReadModel,
    /** Where no surface says otherwise. */
    private readonly plain: number,
  ) {
    const elevations = new Map(levels.map(({ id, elevation }) => [id, elevation]));
    const ground = outdoor.flatMap(({ outline, level, height, use }): Surface[] => {
      const known = outdoorUseOf(use);
      // A fence stands on the ground; what is nothing yet may be anything.
      if (known === undefined || known === 'fence' || outline.length < 3) return [];
      return [
        { outline: outline.map(([x, y]): Point => [x, y]), elevation: (elevations.get(level) ?? plain) + height },
      ];
    });
    this.index = new BoxIndex(ground, ({ outline }) => boxOf(outline));
    this.measured = new GroundSurface(
      terrain.flatMap(({ points, elevation }) => points.map(([x, y]) => [x, y, elevation] as const)),
    );
  }

  /** The ground at a place: of surfaces that lie over one another the highest. */
  private at(p: Point): { ground: number; measured: boolean } {
    const found = this.index.around(p).filter(({ outline }) => contains(outline, p));
    if (found.length > 0) return { ground: Math.max(...found.map(({ elevation }) => elevation)), measured: false };
    const height = this.measured.at(p);
    return { ground: height ?? this.plain, measured: height !== null };
  }

  /** Shares of a line between which the ground rises by no more than a step, and by no more than to some heights. */
  private steps(from: Point, to: Point, heights: readonly number[]): number[] {
    const bends = [0, ...this.measured.bends(from, to).sort((a, b) => a - b), 1];
    return bends.slice(1).flatMap((end, i) => {
      const begin = bends[i];
      // Just inside of the piece: beside it the ground may begin, or end.
      const inside = (end - begin) * least;
      const [low, high] = [begin + inside, end - inside].map((at) => this.at(pointAlong(from, to, at)).ground);
      const count = Math.ceil(Math.abs(high - low) / step);
      const even = Array.from({ length: Math.max(0, count - 1) }, (_, k) => (k + 1) / count);
      const met = heights.map((height) => (height - low) / (high - low)).filter((at) => at > 0 && at < 1);
      return [...(i === 0 ? [] : [begin]), ...[...even, ...met].map((at) => begin + (end - begin) * at)];
    });
  }

  /** A stretch parted where the ground before it changes; one between rooms has none before it. */
  along(stretch: Stretch): Standing[] {
    if (stretch.beyond !== null) return [{ ...stretch, ground: this.plain, measured: false }];
    const { a, b, outward, wall } = stretch;
    const off = (wall?.wall.thickness ?? 0) + before;
    const out = (p: Point): Point => [p[0] + outward[0] * off, p[1] + outward[1] * off];
    const [from, to] = [out(a), out(b)];
    const edges = this.index.touching(boxOf([from, to])).flatMap(({ outline }) =>
      outline.flatMap((p, i) => {
        const met = lineCrossing(from, to, p, outline[(i + 1) % outline.length]);
        return met !== null && met.t > least && met.t < 1 - least && met.u >= 0 && met.u <= 1 ? [met.t] : [];
      }),
    );
    const cuts = [...edges, ...this.steps(from, to, [stretch.low, stretch.high])];
    const shares = [0, ...cuts.sort((one, other) => one - other), 1];
    const parts: { from: number; to: number; ground: number; measured: boolean }[] = [];
    shares.slice(1).forEach((end, i) => {
      const { ground, measured } = this.at(pointAlong(from, to, (shares[i] + end) / 2));
      const last = parts[parts.length - 1];
      if (last !== undefined && (last.ground === ground || end - shares[i] < least)) last.to = end;
      else parts.push({ from: shares[i], to: end, ground, measured });
    });
    return parts.map((part) => ({
      ...stretch,
      a: pointAlong(a, b, part.from),
      b: pointAlong(a, b, part.to),
      length: stretch.length * (part.to - part.from),
      ground: part.ground,
      measured: part.measured,
    }));
  }
}
