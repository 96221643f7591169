import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { contains } from '@/core/geometry/polygon';
import { lineCrossing, pointAlong, type Point } from '@/core/geometry/vector';
import type { ReadModel } from '@/core/handover/model/readModel';
import { outdoorUseOf } from '@/core/kinds/outdoorUse';
import type { Stretch } from './stretches';

/** A stretch with the ground before it. */
export interface Standing extends Stretch {
  /** Elevation, metres. */
  ground: number;
}

/** The ground before a wall is looked at this far from its outer face, metres. */
const before = 0.5;
/** Shorter pieces go with the one before, shares of the stretch. */
const least = 1e-6;

interface Surface {
  outline: Point[];
  elevation: number;
}

/** The ground about a building: surfaces outside that are said to be ground, at their height; else its level. */
export class Terrain {
  private readonly index: BoxIndex<Surface>;

  constructor(
    { outdoor, levels }: ReadModel,
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
  }

  /** The ground at a place: of surfaces that lie over one another the highest. */
  at(p: Point): number {
    const found = this.index.around(p).filter(({ outline }) => contains(outline, p));
    return found.length === 0 ? this.plain : Math.max(...found.map(({ elevation }) => elevation));
  }

  /** A stretch parted where the ground before it changes; one between rooms has none before it. */
  along(stretch: Stretch): Standing[] {
    if (stretch.beyond !== null) return [{ ...stretch, ground: this.plain }];
    const { a, b, outward, wall } = stretch;
    const off = (wall?.wall.thickness ?? 0) + before;
    const out = (p: Point): Point => [p[0] + outward[0] * off, p[1] + outward[1] * off];
    const [from, to] = [out(a), out(b)];
    const cuts = this.index.touching(boxOf([from, to])).flatMap(({ outline }) =>
      outline.flatMap((p, i) => {
        const met = lineCrossing(from, to, p, outline[(i + 1) % outline.length]);
        return met !== null && met.t > least && met.t < 1 - least && met.u >= 0 && met.u <= 1 ? [met.t] : [];
      }),
    );
    const shares = [0, ...cuts.sort((one, other) => one - other), 1];
    const parts: { from: number; to: number; ground: number }[] = [];
    shares.slice(1).forEach((end, i) => {
      const ground = this.at(pointAlong(from, to, (shares[i] + end) / 2));
      const last = parts[parts.length - 1];
      if (last !== undefined && (last.ground === ground || end - shares[i] < least)) last.to = end;
      else parts.push({ from: shares[i], to: end, ground });
    });
    return parts.map((part) => ({
      ...stretch,
      a: pointAlong(a, b, part.from),
      b: pointAlong(a, b, part.to),
      length: stretch.length * (part.to - part.from),
      ground: part.ground,
    }));
  }
}
