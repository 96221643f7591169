import type { Arc } from '@/core/geometry/bulge';
import { apply, determinant, invert } from '@/core/geometry/transform';
import {
  cross,
  direction,
  distance,
  dot,
  footOnLine,
  lineCrossing,
  pointAlong,
  shareAlong,
  subtract,
  type Point,
} from '@/core/geometry/vector';
import { kinds } from '@/core/kinds/kinds';
import { pieceAt } from '@/core/underlay/pieces';
import type { BoardDrawing, BoardScene } from '../scene';
import { offer, type Held, type SnapLook, type SnapProvider } from './held';
import { nearby, straightOf } from './modelSnaps';

/** Places that follow from lines near the cursor are looked for by lines within this many reaches. */
const widely = 4;
/** So many lines of each drawing are looked at, the nearest. */
const mostLines = 10;
/** Lines are thought on beyond their ends by at most this, metres. */
const thoughtOn = 6;
/** By how many pixels places that follow stand back behind what is drawn. */
const ranks = { meet: 2, foot: 2, side: 3, direction: 6, continuation: 7 };
/** Directions closer than this are one, as a sine. */
const oneDirection = 1e-4;

/** A line near the cursor, placed; round where it is an arc. */
interface Near {
  a: Point;
  b: Point;
  arc: Arc | null;
  words: string;
}

function linesOf({ underlay, transform, hidden }: BoardDrawing, at: Point, reach: number): Near[] {
  const { primitives, index, layers } = underlay;
  const scale = Math.sqrt(Math.abs(determinant(transform)));
  const local = apply(invert(transform), at);
  const sides = index.vertex.length;
  const shown = (item: number): boolean => item < sides && hidden[primitives.layer[index.path[item]]] === 0;
  return index.tree.neighbors(local[0], local[1], mostLines, reach / scale, shown).map((item) => {
    const piece = pieceAt(primitives, index, item);
    const [a, b] = [apply(transform, piece.a), apply(transform, piece.b)];
    const arc = piece.arc && {
      ...piece.arc,
      centre: apply(transform, piece.arc.centre),
      radius: piece.arc.radius * scale,
    };
    return { a, b, arc, words: `${arc ? 'circle' : 'line'} on ${layers[primitives.layer[piece.path]].name}` };
  });
}

/** The lines of drawings and of the model near the cursor. */
function linesNear(scene: BoardScene, { at, metresPerPixel, reach }: SnapLook): Near[] {
  const wide = reach * metresPerPixel * widely;
  const drawn = scene.drawings.flatMap((drawing) => linesOf(drawing, at, wide));
  const modelled = nearby(scene, at, wide).flatMap((element): Near[] => {
    const line = straightOf(element);
    return line === null ? [] : [{ a: line.start, b: line.end, arc: null, words: kinds[element.kind].names[0] }];
  });
  return [...drawn, ...modelled].filter(({ a, b }) => distance(a, b) > 0);
}

/** Where pairs of lines would meet if they went on. */
function meets(lines: readonly Near[], look: SnapLook): Held[] {
  const held = offer(look, 'follows', ranks.meet);
  const straight = lines.filter(({ arc }) => arc === null);
  return straight.flatMap((p, i) =>
    straight.slice(i + 1).flatMap((q) => {
      const hit = lineCrossing(p.a, p.b, q.a, q.b);
      if (hit === null) return [];
      // Where both are drawn it is a crossing, which others know of.
      const drawn = hit.t >= 0 && hit.t <= 1 && hit.u >= 0 && hit.u <= 1;
      const far = beyond(hit.t, p) > thoughtOn || beyond(hit.u, q) > thoughtOn;
      return drawn || far ? [] : held(hit.point, `where ${p.words} and ${q.words} would meet`);
    }),
  );
}

/** How far a place on a line, as a share of it, lies beyond its ends, metres. */
const beyond = (t: number, { a, b }: Near): number => Math.max(0, -t, t - 1) * distance(a, b);

/** The foot of the cursor on a line that goes on beyond its end. */
function continuations(lines: readonly Near[], look: SnapLook): Held[] {
  const held = offer(look, 'follows', ranks.continuation);
  return lines.flatMap((line) => {
    if (line.arc !== null) return [];
    const t = shareAlong(line.a, line.b, look.at);
    const out = beyond(t, line);
    if (out === 0 || out > thoughtOn) return [];
    return held(pointAlong(line.a, line.b, t), `continuation of ${line.words}`);
  });
}

/** Feet of squares from the last point onto lines, and where a line from it touches the side of a circle. */
function feet(lines: readonly Near[], base: Point, look: SnapLook): Held[] {
  const [foot, side] = [offer(look, 'follows', ranks.foot), offer(look, 'follows', ranks.side)];
  return lines.flatMap((line) => {
    if (line.arc !== null) return touching(line.arc, base).flatMap((p) => side(p, `side of ${line.words}`));
    const at = footOnLine(line.a, line.b, base);
    // A line through the last point has its foot there.
    return distance(at, base) < 1e-9 ? [] : foot(at, `square to ${line.words}`);
  });
}

/** The points of a circle where lines through a point outside of it touch it. */
function touching({ centre, radius }: Arc, from: Point): Point[] {
  const away = distance(centre, from);
  if (away <= radius) return [];
  const turn = Math.acos(radius / away);
  const towards = Math.atan2(from[1] - centre[1], from[0] - centre[0]);
  return [towards - turn, towards + turn].map((angle) => {
    const [x, y] = direction(angle);
    return [centre[0] + radius * x, centre[1] + radius * y];
  });
}

/** The cursor put onto directions from the last point: of the axes, and of lines near the cursor. */
function directions(scene: BoardScene, lines: readonly Near[], base: Point, look: SnapLook): Held[] {
  const held = offer(look, 'follows', ranks.direction);
  const of = scene.axes === null ? 'the project' : scene.axes.name;
  const angle = scene.axes?.angle ?? 0;
  const known: { u: Point; words: string }[] = [
    { u: direction(angle), words: `along the x axis of ${of}` },
    { u: direction(angle + Math.PI / 2), words: `along the y axis of ${of}` },
  ];
  for (const { a, b, arc, words } of lines) {
    const length = distance(a, b);
    const u: Point = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
    if (arc === null && !known.some((other) => Math.abs(cross(other.u, u)) < oneDirection))
      known.push({ u, words: `parallel to ${words}` });
  }
  const d = subtract(look.at, base);
  return known.flatMap(({ u, words }) => {
    const along = dot(d, u);
    return held([base[0] + along * u[0], base[1] + along * u[1]], words);
  });
}

/** Places that follow from what is drawn near the cursor, and from the last point. */
export const followSnaps =
  (scene: () => BoardScene): SnapProvider =>
  (look) => {
    const now = scene();
    const lines = linesNear(now, look);
    const from = look.base;
    return [
      ...meets(lines, look),
      ...continuations(lines, look),
      ...(from === null ? [] : [...feet(lines, from, look), ...directions(now, lines, from, look)]),
    ];
  };
