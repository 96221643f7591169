import type { SplineData } from '@/core/geometry/curves';
import { arcOfBulge, bulgeOfSweep } from '@/core/geometry/bulge';
import { alongCurve, quarters, splineCurve } from '@/core/geometry/curves';
import { seenFromAbove, type Space } from '@/core/geometry/space';
import { apply, determinant, evenScale, type Transform } from '@/core/geometry/transform';
import { distance, type Point } from '@/core/geometry/vector';
import { Flag, Kind, runKinds, stringOf, textKinds, vertexCount, type Drawing } from '@/core/drawing/drawing';
import { hatchLoops, type Edge } from '@/core/drawing/hatchLayout';
import { splineAt } from '@/core/drawing/splineLayout';
import type { EndlessLine } from './endless';
import { inOneDirection, type EdgePart } from './hatchEdges';
import type { PathOwner, Paths } from './paths';
import { PathFlag, type TextPrimitive } from './primitives';

/** Curves that are no arcs leave their chords by at most this share of their size, where no sagitta is given. */
const sagittaShare = 1 / 2000;

/** Where an entity lies: the map into the plan, and the whole map of space where something above is tilted. */
export interface Placing {
  transform: Transform;
  space: Space | null;
  /** Whether it is only shifted. */
  plain: boolean;
}

/** Draws entities as paths and texts, as they are seen from above. */
export class Shapes {
  readonly texts: TextPrimitive[] = [];
  /** Lines without an end, which are cut once all else is there. */
  readonly endless: EndlessLine[] = [];

  /** @param sagitta how far a chord may leave its curve, in drawing units; null is a share of its size */
  constructor(
    private readonly drawing: Drawing,
    private readonly paths: Paths,
    private readonly sagitta: number | null,
  ) {}

  /** Draws an entity. */
  draw(kind: number, row: number, owner: PathOwner, around: Placing): void {
    const { at, numbers: n } = this.drawing;
    const i = at[row];
    if (textKinds[kind] === 1) {
      this.text(row, owner, around);
      return;
    }
    if (runKinds[kind] === 1) {
      this.runs(i, owner, around);
      return;
    }
    switch (kind) {
      case Kind.line:
        this.line(row, owner, around);
        break;
      case Kind.polyline:
      case Kind.heavyPolyline:
        this.polyline(row, owner, around);
        break;
      case Kind.arc:
        this.arc(owner, around, n[i], n[i + 1], n[i + 2], n[i + 3], sweepOf(n[i + 3], n[i + 4]));
        break;
      case Kind.circle:
        this.arc(owner, around, n[i], n[i + 1], n[i + 2], 0, 2 * Math.PI);
        break;
      case Kind.ellipse:
        this.ellipse(n.subarray(i, i + 8), owner, around);
        break;
      case Kind.spline:
        this.spline(i, owner, around);
        break;
      case Kind.hatch:
        this.hatch(i, owner, around);
        break;
      case Kind.construction:
      case Kind.ray: {
        const p = apply(around.transform, [n[i], n[i + 1]]);
        this.endless.push({
          line: [p, apply(around.transform, [n[i] + n[i + 2], n[i + 1] + n[i + 3]])],
          both: n[i + 4] === 1,
          owner,
        });
        break;
      }
      case Kind.point:
        this.paths.begin(owner, 0);
        this.vertex(around, n[i], n[i + 1], 0);
        break;
    }
  }

  /** A straight line between two points. */
  stroke(owner: PathOwner, around: Placing, a: Point, b: Point): void {
    this.paths.begin(owner, 0);
    this.vertex(around, ...a, 0);
    this.vertex(around, ...b, 0);
  }

  /** Adds a vertex, its bulge turned over where the map mirrors. */
  private vertex({ transform: t, plain }: Placing, x: number, y: number, bulge: number): void {
    if (plain) this.paths.vertex(x + t[4], y + t[5], bulge);
    else
      this.paths.vertex(
        t[0] * x + t[2] * y + t[4],
        t[1] * x + t[3] * y + t[5],
        bulge === 0 || determinant(t) >= 0 ? bulge : -bulge,
      );
  }

  /** Adds the vertex at x, y and a height. */
  private highVertex(around: Placing, x: number, y: number, z: number): void {
    if (around.space === null) this.vertex(around, x, y, 0);
    else this.paths.vertex(...apply(seenFromAbove(around.space, z), [x, y]), 0);
  }

  private line(row: number, owner: PathOwner, around: Placing): void {
    const { at, numbers: n, flags } = this.drawing;
    const i = at[row];
    const high = (flags[row] & Flag.heights) !== 0;
    if (high) owner.elevation = (n[i + 4] + n[i + 5]) / 2;
    this.paths.begin(owner, 0);
    this.highVertex(around, n[i], n[i + 1], high ? n[i + 4] : 0);
    this.highVertex(around, n[i + 2], n[i + 3], high ? n[i + 5] : 0);
  }

  private runs(at: number, owner: PathOwner, around: Placing): void {
    const n = this.drawing.numbers;
    let next = at + 1;
    for (let run = 0; run < n[at]; run += 1) {
      const count = n[next];
      this.paths.begin(owner, n[next + 1] === 1 ? PathFlag.closed : 0);
      next += 2;
      for (let i = 0; i < count; i += 1) this.vertex(around, n[next + 2 * i], n[next + 2 * i + 1], 0);
      next += 2 * count;
    }
  }

  private polyline(row: number, owner: PathOwner, around: Placing): void {
    const { flags, at, numbers } = this.drawing;
    const count = vertexCount(this.drawing, row);
    const closed = (flags[row] & Flag.closed) !== 0;
    const bulged = (flags[row] & Flag.bulges) !== 0;
    const heights = (flags[row] & Flag.heights) !== 0 ? at[row] + count * (bulged ? 3 : 2) : -1;
    if (heights >= 0) owner.elevation = numbers[heights];
    const round = !bulged || evenScale(around.transform) !== null;
    this.paths.begin(owner, closed ? PathFlag.closed : 0);
    for (let i = 0; i < count; i += 1) {
      const [x, y] = [numbers[at[row] + 2 * i], numbers[at[row] + 2 * i + 1]];
      if (heights >= 0) {
        this.highVertex(around, x, y, numbers[heights + i]);
        continue;
      }
      const bulge = bulged ? numbers[at[row] + 2 * count + i] : 0;
      this.vertex(around, x, y, round ? bulge : 0);
      if (round || bulge === 0) continue;
      const next = i + 1 < count ? i + 1 : 0;
      if (next === 0 && !closed) continue;
      const to: Point = [numbers[at[row] + 2 * next], numbers[at[row] + 2 * next + 1]];
      for (const p of this.bulgedSide(around, [x, y], to, bulge).slice(0, -1)) this.paths.vertex(...p, 0);
    }
  }

  /** The points of a bulged side that an uneven scale makes elliptic, but for the first. */
  private bulgedSide(around: Placing, from: Point, to: Point, bulge: number): Point[] {
    const { centre, radius, start, sweep } = arcOfBulge(from, to, bulge);
    const points: Point[] = [];
    this.roundPoints(around, ...centre, [radius, 0], [0, radius], start, start + sweep, (p) => points.push(p));
    return points;
  }

  /** Points of an ellipse after the map, the first left out. */
  private roundPoints(
    { transform }: Placing,
    cx: number,
    cy: number,
    a: Point,
    b: Point,
    start: number,
    end: number,
    visit: (p: Point) => void,
  ): void {
    const curve = (t: number) =>
      apply(transform, [cx + a[0] * Math.cos(t) + b[0] * Math.sin(t), cy + a[1] * Math.cos(t) + b[1] * Math.sin(t)]);
    const size = Math.max(Math.hypot(...a), Math.hypot(...b)) * Math.sqrt(Math.abs(determinant(transform)) || 1);
    alongCurve(curve, quarters(start, end), this.sagitta ?? size * sagittaShare, visit);
  }

  /** A circular arc; a whole turn is a closed path. */
  private arc(
    owner: PathOwner,
    around: Placing,
    cx: number,
    cy: number,
    radius: number,
    start: number,
    sweep: number,
  ): void {
    if (evenScale(around.transform) === null) {
      this.ellipse([cx, cy, radius, 0, 0, radius, start, start + sweep], owner, around);
      return;
    }
    const whole = sweep >= 2 * Math.PI - 1e-12;
    // A bulge grows without bound towards a full turn, so no side covers more than a half.
    const sides = sweep > Math.PI ? 2 : 1;
    const bulge = bulgeOfSweep(sweep / sides);
    this.paths.begin(owner, whole ? PathFlag.closed | PathFlag.circle : 0);
    for (let i = 0; i < sides + (whole ? 0 : 1); i += 1) {
      const angle = start + (sweep * i) / sides;
      this.vertex(around, cx + radius * Math.cos(angle), cy + radius * Math.sin(angle), i < sides ? bulge : 0);
    }
  }

  private ellipse(numbers: ArrayLike<number>, owner: PathOwner, around: Placing): void {
    const [cx, cy, ax, ay, bx, by, start, end] = Array.from(numbers);
    const sweep = sweepOf(start, end);
    const whole = sweep >= 2 * Math.PI - 1e-9;
    const points: Point[] = [
      apply(around.transform, [
        cx + ax * Math.cos(start) + bx * Math.sin(start),
        cy + ay * Math.cos(start) + by * Math.sin(start),
      ]),
    ];
    this.roundPoints(around, cx, cy, [ax, ay], [bx, by], start, start + sweep, (p) => points.push(p));
    if (whole) points.pop();
    this.paths.begin(owner, whole ? PathFlag.closed : 0);
    for (const p of points) this.paths.vertex(...p, 0);
  }

  /** The points of a spline, none where its knots make no curve. */
  private splinePoints(data: SplineData, around: Placing, visit: (p: Point) => void): void {
    const found = splineCurve(data);
    if (found === null) return;
    const { curve, breaks } = found;
    const seen = (t: number) => apply(around.transform, curve(t));
    const corners = breaks.map(seen);
    const size = Math.max(...([0, 1] as const).map((axis) => extent(corners, axis)));
    visit(corners[0]);
    alongCurve(seen, breaks, this.sagitta ?? size * sagittaShare, visit);
  }

  private spline(at: number, owner: PathOwner, around: Placing): void {
    const points: Point[] = [];
    this.splinePoints(splineAt(this.drawing.numbers, at).spline, around, (p) => points.push(p));
    if (points.length < 2) return;
    this.paths.begin(owner, 0);
    for (const p of points) this.paths.vertex(...p, 0);
  }

  /** A hatch is its boundary loops. */
  private hatch(at: number, owner: PathOwner, around: Placing): void {
    for (const edges of hatchLoops(this.drawing.numbers, at)) {
      const parts = inOneDirection(
        edges.map((edge) => this.hatchEdge(edge, around)).filter((part) => part.points.length > 1),
      );
      if (parts.length === 0) continue;
      this.paths.begin(owner, PathFlag.closed);
      parts.forEach(({ points, bulge }, i) => {
        const next = parts[(i + 1) % parts.length].points[0];
        const last = points[points.length - 1];
        points.forEach((p, k) => {
          if (k < points.length - 1 || distance(last, next) > 1e-9 * (Math.abs(last[0]) + Math.abs(last[1]) + 1))
            this.paths.vertex(...p, k === 0 ? bulge : 0);
        });
      });
    }
  }

  /** One edge as it is seen: two points with a bulge, or the points of a curve. */
  private hatchEdge(edge: Edge, around: Placing): EdgePart {
    const { transform } = around;
    const points: Point[] = [];
    const add = (p: Point) => {
      points.push(p);
    };
    if (edge.kind === 'side') {
      const [x1, y1, x2, y2, bulge] = edge.numbers;
      add(apply(transform, [x1, y1]));
      if (bulge !== 0 && evenScale(transform) === null) {
        points.push(...this.bulgedSide(around, [x1, y1], [x2, y2], bulge));
        return { points, bulge: 0 };
      }
      add(apply(transform, [x2, y2]));
      return { points, bulge: determinant(transform) < 0 ? -bulge : bulge };
    }
    if (edge.kind === 'ellipse') {
      const [cx, cy, ax, ay, bx, by, start, end] = edge.numbers;
      add(
        apply(transform, [
          cx + ax * Math.cos(start) + bx * Math.sin(start),
          cy + ay * Math.cos(start) + by * Math.sin(start),
        ]),
      );
      this.roundPoints(around, cx, cy, [ax, ay], [bx, by], start, end, add);
    } else this.splinePoints(edge.spline, around, add);
    return { points, bulge: 0 };
  }

  private text(row: number, owner: PathOwner, around: Placing): void {
    const { at, numbers } = this.drawing;
    const [x, y, height, angle, widthFactor, across, up, string] = numbers.subarray(at[row], at[row] + 8);
    this.writeText({ x, y, height, angle, widthFactor, across, up }, stringOf(this.drawing, string), owner, around);
  }

  /** A text as it is seen. */
  writeText(
    {
      x,
      y,
      height,
      angle,
      widthFactor,
      across,
      up,
    }: Pick<TextPrimitive, 'x' | 'y' | 'height' | 'angle' | 'widthFactor' | 'across' | 'up'>,
    text: string,
    { layer, colour, kind, chain, entity, top }: PathOwner,
    { transform: t }: Placing,
  ): void {
    const [ux, uy] = [t[0] * Math.cos(angle) + t[2] * Math.sin(angle), t[1] * Math.cos(angle) + t[3] * Math.sin(angle)];
    const along = Math.hypot(ux, uy);
    const rise = along === 0 ? 0 : Math.abs(determinant(t)) / along;
    const [px, py] = apply(t, [x, y]);
    this.texts.push({
      x: px,
      y: py,
      height: height * rise,
      angle: Math.atan2(uy, ux),
      widthFactor: Math.abs(rise === 0 ? widthFactor : (widthFactor * along) / rise),
      mirrored: determinant(t) < 0 !== widthFactor < 0,
      across,
      up,
      text,
      layer,
      colour,
      kind,
      chain,
      entity,
      top,
    });
  }
}

const extent = (points: readonly Point[], axis: 0 | 1): number =>
  points.reduce((most, p) => Math.max(most, p[axis]), -Infinity) -
  points.reduce((least, p) => Math.min(least, p[axis]), Infinity);

/** The counter-clockwise turn from one angle to another, in (0, 2 pi]. */
function sweepOf(start: number, end: number): number {
  const turn = (end - start) % (2 * Math.PI);
  return turn <= 1e-12 ? turn + 2 * Math.PI : turn;
}
