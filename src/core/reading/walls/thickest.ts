import { groupBy } from '@/core/groupBy';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { cross, distance, dot, middle, subtract, type Point } from '@/core/geometry/vector';
import { inPlan, type FaceFamily } from '@/core/patterns/faces';

/** What tells walls thicker than is taken for granted. */
const massive = {
  /** Metres. */
  most: 1.6,
  /** So many jambs and ends of one length. */
  fewest: 4,
  /** Ends that meet do so within this, and lengths within it are one, metres. */
  near: 0.012,
  /** A face beyond that is longer by more is the back of a wall across a passage, metres. */
  longer: 0.3,
};

interface Side {
  a: Point;
  b: Point;
  length: number;
}

/**
 * How thick the walls of a drawing are at most: as what is taken for granted, or as its jambs and ends say. These lie
 * square between the ends of two faces that go on to one side, and several are of one length. Where a face runs behind,
 * no further than a wall is thick, or a longer one, it is the end of a passage or of a small room.
 * @param most what is taken for granted, metres
 */
export function thickestWall(families: readonly FaceFamily[], most: number): number {
  const sides = families.flatMap((family) =>
    family.faces.flatMap(({ offset, spans }) =>
      spans.map(({ from, to }): Side => ({
        a: inPlan(family, from, offset),
        b: inPlan(family, to, offset),
        length: to - from,
      })),
    ),
  );
  const across = sides.filter(({ length }) => length > most + massive.near && length <= massive.most);
  if (across.length < massive.fewest) return most;
  const ends = new BoxIndex(
    sides.flatMap((side) => [
      { side, at: side.a, away: subtract(side.b, side.a) },
      { side, at: side.b, away: subtract(side.a, side.b) },
    ]),
    ({ at }) => boxOf([at]),
  );
  const index = new BoxIndex(sides, ({ a, b }) => boxOf([a, b]));
  const jambs = across.filter((side) => isJamb(side, most, ends, index));
  const lengths = groupBy(jambs, ({ length }) => Math.round(length / (2 * massive.near)));
  const thick = [...lengths.values()].filter((own) => own.length >= massive.fewest);
  return Math.max(most, ...thick.map((own) => own[0].length + massive.near));
}

/** Whether faces begin at both ends of a side, square to it and to one side, and no wall's back runs behind it. */
function isJamb(
  { a, b, length }: Side,
  most: number,
  ends: BoxIndex<{ side: Side; at: Point; away: Point }>,
  index: BoxIndex<Side>,
): boolean {
  const u: Point = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  const towards = (at: Point): number[] =>
    ends.around(at, massive.near).flatMap(({ at: end, away, side }) => {
      const isSquare = Math.abs(dot(u, away)) < massive.near * side.length;
      return distance(end, at) <= massive.near && isSquare ? [Math.sign(cross(u, away))] : [];
    });
  const [first, last] = [towards(a), towards(b)];
  return [-1, 1].some((side) => {
    if (!first.includes(side) || !last.includes(side)) return false;
    const at = middle(a, b);
    const beside = (way: number, reach: number): { away: number; length: number }[] => {
      const end: Point = [at[0] - u[1] * way * reach, at[1] + u[0] * way * reach];
      return index.touching(boxOf([at, end])).flatMap((other) => {
        const away = way * cross(u, subtract(middle(other.a, other.b), at));
        const isLevel = Math.abs(cross(u, subtract(other.b, other.a))) < massive.near * other.length;
        return isLevel && away > massive.near && away <= reach ? [{ away, length: other.length }] : [];
      });
    };
    // Behind is the other side than the faces; a face as near ahead is that of a thin wall about a small room.
    const isBacked = beside(-side, massive.most).some((other) =>
      other.away <= most ? other.length >= length - massive.longer : other.length > length + massive.longer,
    );
    return !isBacked && !beside(side, most).some((other) => other.length >= length - massive.longer);
  });
}
