import { thickness, type TrueRoom, type XY } from './building';
import type { Draft } from './draft';

/** A gap in a wall: the wall runs along x or y at `wall` on the other axis; `at` is the gap's middle along it. */
export interface Gap {
  along: 'x' | 'y';
  wall: number;
  at: number;
  width: number;
  kind: 'door' | 'window';
}

export interface Floor {
  rooms: TrueRoom[];
  low: XY;
  high: XY;
  gaps: Gap[];
}

const layers = { wall: 'A-WALL', glaze: 'A-GLAZ' };

/**
 * Draws the faces of walls as a cleaned plan shows them: the inner faces of each room and the outer faces of the
 * block, broken at openings, with jambs and glazing lines.
 */
export function drawWalls(draft: Draft, floor: Floor): void {
  const { rooms, low, high, gaps } = floor;
  for (const room of rooms) {
    const [x1, x2] = [room.x[0] + halfOf(floor, 'y', room.x[0]), room.x[1] - halfOf(floor, 'y', room.x[1])];
    const [y1, y2] = [room.y[0] + halfOf(floor, 'x', room.y[0]), room.y[1] - halfOf(floor, 'x', room.y[1])];
    ring(draft, [x1, y1], [x2, y2], room.x as XY, room.y as XY, gaps);
  }
  const half = thickness.outer / 2;
  ring(
    draft,
    [low[0] - half, low[1] - half],
    [high[0] + half, high[1] + half],
    [low[0], high[0]],
    [low[1], high[1]],
    gaps,
  );
  for (const gap of gaps) jambs(draft, gap, halfOf(floor, gap.along, gap.wall));
}

/** Half the thickness of the wall that runs along an axis at a place on the other. */
function halfOf({ low, high }: Floor, along: 'x' | 'y', wall: number): number {
  const axis = along === 'x' ? 1 : 0;
  const outer = Math.abs(wall - low[axis]) < 1e-6 || Math.abs(wall - high[axis]) < 1e-6;
  return (outer ? thickness.outer : thickness.inner) / 2;
}

/** Four faces of a rectangle, on the walls at x and y. */
function ring(draft: Draft, low: XY, high: XY, x: XY, y: XY, gaps: Gap[]): void {
  face(draft, 'x', y[0], low[1], low[0], high[0], gaps);
  face(draft, 'x', y[1], high[1], low[0], high[0], gaps);
  face(draft, 'y', x[0], low[0], low[1], high[1], gaps);
  face(draft, 'y', x[1], high[0], low[1], high[1], gaps);
}

const pointOn = (along: 'x' | 'y', at: number, other: number): XY => (along === 'x' ? [at, other] : [other, at]);

function face(
  draft: Draft,
  along: 'x' | 'y',
  wall: number,
  offset: number,
  from: number,
  to: number,
  gaps: Gap[],
): void {
  const here = gaps
    .filter((gap) => gap.along === along && Math.abs(gap.wall - wall) < 1e-6 && gap.at > from && gap.at < to)
    .sort((p, q) => p.at - q.at);
  let at = from;
  for (const gap of here) {
    draft.line(layers.wall, pointOn(along, at, offset), pointOn(along, gap.at - gap.width / 2, offset));
    at = gap.at + gap.width / 2;
  }
  draft.line(layers.wall, pointOn(along, at, offset), pointOn(along, to, offset));
}

function jambs(draft: Draft, { along, wall, at, width, kind }: Gap, half: number): void {
  const ends = [at - width / 2, at + width / 2];
  for (const end of ends) draft.line(layers.wall, pointOn(along, end, wall - half), pointOn(along, end, wall + half));
  if (kind === 'window')
    for (const offset of [-half, 0, half])
      draft.line(layers.glaze, pointOn(along, ends[0], wall + offset), pointOn(along, ends[1], wall + offset));
}
