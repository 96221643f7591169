import type { SplineData } from '@/core/geometry/curves';
import { arcOfBulge, bulgeOfSweep } from '@/core/geometry/bulge';
import { alongCurve, quarters, splineCurve } from '@/core/geometry/curves';
import { composeSpace, planeSpace, seenFromAbove, spaceOf, type Space } from '@/core/geometry/space';
import { apply, compose, determinant, evenScale, type Transform } from '@/core/geometry/transform';
import { distance, type Point } from '@/core/geometry/vector';
import {
  blockKinds,
  elevationOf,
  Flag,
  Kind,
  planeOf,
  runKinds,
  stringOf,
  textKinds,
  vertexCount,
  type Drawing,
} from '@/core/drawing/drawing';
import { hatchLoops, type Edge } from '@/core/drawing/hatchLayout';
import { defaultLimits, type ReadLimits } from '@/core/drawing/limits';
import { Expansion } from './expansion';
import { splineAt } from '@/core/drawing/splineLayout';
import { resolveColour } from './colours';
import { dimensionPicture } from './dimensionPicture';
import { cutEndless, type EndlessLine } from './endless';
import { inOneDirection, type EdgePart } from './hatchEdges';
import { Paths, type PathOwner } from './paths';
import { Pens } from './pens';
import { ink, PathFlag, type Chain, type Primitives, type TextPrimitive } from './primitives';

/** Curves that are no arcs leave their chords by at most this share of their size, where no sagitta is given. */
export const sagittaShare = 1 / 2000;

export interface FlattenOptions {
  limits?: ReadLimits;
  /** How far a chord may leave its curve, in drawing units. */
  sagitta?: number;
}

/**
 * Flattens a drawing: blocks taken apart through all their scales, turnings and mirrorings, arrays laid out,
 * layer 0 and by-block colours resolved, arcs and circles kept as bulges where the map keeps them round, tilted planes
 * seen
 * from above.
 *
 * `limits` stops a block within itself, too deep nesting and more primitives than allowed; what was stopped is told in
 * `limits`
 * of the result.
 */
export function flatten(drawing: Drawing, { limits = defaultLimits, sagitta }: FlattenOptions = {}): Primitives {
  return new Flattener(drawing, limits, sagitta ?? null).run();
}

/** What a block's content inherits from its insert. */
interface Surroundings {
  transform: Transform;
  /** The whole map of space where something above is tilted: heights then move what is seen. */
  space: Space | null;
  layer: number;
  /** The layer of an insert that is frozen: all of it hides with that layer. */
  frozen: number;
  colour: number;
  pen: number;
  /** The kind that the content counts as, or -1 for its own. */
  kind: number;
  chain: number;
  top: number;
  depth: number;
  plain: boolean;
}

class Flattener {
  private paths = new Paths();
  private texts: TextPrimitive[] = [];
  private counts: Record<number, number> = {};
  private stopped: Primitives['limits'] = { nesting: 0, recursion: 0, primitives: false, expansions: [] };
  private expansion: Expansion;
  private open = new Set<number>();
  private visited = 0;
  private origin: [number, number];
  private chains: Chain[] = [{ block: -1, parent: -1 }];
  private chainOf = new Map<number, number>();
  private pens: Pens;
  private endless: EndlessLine[] = [];

  constructor(
    private drawing: Drawing,
    private limits: ReadLimits,
    private sagitta: number | null,
  ) {
    this.origin = this.localOrigin();
    this.pens = new Pens(drawing);
    this.expansion = new Expansion(drawing);
  }

  run(): Primitives {
    const { drawing } = this;
    const transform: Transform = [1, 0, 0, 1, -this.origin[0], -this.origin[1]];
    this.block(drawing.model, {
      transform,
      space: null,
      layer: 0,
      frozen: -1,
      colour: ink,
      pen: 0,
      kind: -1,
      chain: 0,
      top: -1,
      depth: 0,
      plain: true,
    });
    if (this.endless.length > 0) {
      for (const { from, to, owner } of cutEndless(
        this.endless,
        this.paths.xy.array.subarray(0, this.paths.xy.length),
      )) {
        this.paths.begin(owner, 0);
        for (const p of [from, to]) this.paths.vertex(...p, 0);
        this.counts[owner.kind] = (this.counts[owner.kind] ?? 0) + 1;
      }
    }
    return {
      origin: this.origin,
      ...this.paths.finish(),
      texts: this.texts,
      chains: this.chains,
      pens: this.pens.list,
      counts: this.counts,
      limits: this.stopped,
    };
  }

  /** A whole point amid the model space: the median of its entities' first points, which strays do not move. */
  private localOrigin(): [number, number] {
    const { blocks, model, at, numbers, kind } = this.drawing;
    const { first, count } = blocks[model];
    const step = Math.max(1, Math.floor(count / 1001));
    const [xs, ys]: [number[], number[]] = [[], []];
    for (let row = first; row < first + count; row += step) {
      // What stands first among the numbers of these kinds is no point.
      if (kind[row] === Kind.hatch || kind[row] === Kind.spline || kind[row] === Kind.dimension) continue;
      const skip = runKinds[kind[row]] === 1 ? 3 : 0;
      xs.push(numbers[at[row] + skip]);
      ys.push(numbers[at[row] + skip + 1]);
    }
    const median = (values: number[]) => Math.round(values.sort((a, b) => a - b)[values.length >> 1] ?? 0);
    return [median(xs), median(ys)];
  }

  private block(index: number, around: Surroundings): void {
    const { first, count } = this.drawing.blocks[index];
    this.open.add(index);
    for (let row = first; row < first + count && !this.stopped.primitives; row += 1) this.row(row, around);
    this.open.delete(index);
  }

  private row(row: number, above: Surroundings): void {
    const { drawing } = this;
    const flags = drawing.flags[row];
    const kind = drawing.kind[row];
    if ((flags & Flag.invisible) !== 0) return;
    // Inside a block a definition of an attribute is a form to be filled in, unless its value is constant.
    if (kind === Kind.attributeDefinition && above.depth > 0 && (flags & Flag.constant) === 0) return;
    let layer;
    if (above.frozen >= 0) layer = above.frozen;
    else if (drawing.layer[row] === 0 && above.depth > 0) layer = above.layer;
    else layer = drawing.layer[row];

    const around = (flags & Flag.plane) !== 0 || above.space !== null ? this.inPlane(row, above) : above;
    const owner: PathOwner = {
      layer,
      colour: resolveColour(drawing, drawing.styles[drawing.style[row]].colour, layer, around.colour),
      pen: this.pens.of(drawing.style[row], layer, around.pen),
      kind: around.kind >= 0 ? around.kind : kind,
      chain: around.chain,
      elevation: flags === 0 ? 0 : elevationOf(drawing, row),
      entity: row,
      top: around.depth === 0 ? row : around.top,
    };
    const before = this.paths.count + this.texts.length;
    if (blockKinds[kind] === 1) {
      this.insert(row, owner, above);
      if (around.depth === 0) this.count(kind, before);
      return;
    }
    this.draw(kind, row, owner, around);
    this.count(kind, before);
    if (this.paths.count + this.texts.length >= this.limits.primitives) this.stopped.primitives = true;
  }

  private draw(kind: number, row: number, owner: PathOwner, around: Surroundings): void {
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

  /** The surroundings as seen from above for a row that lies in a plane of its own, or under something tilted. */
  private inPlane(row: number, around: Surroundings): Surroundings {
    const normal = planeOf(this.drawing, row);
    const outer = around.space ?? spaceOf(around.transform);
    const space = normal === null ? outer : composeSpace(outer, planeSpace(normal));
    return { ...around, transform: seenFromAbove(space, elevationOf(this.drawing, row)), space, plain: false };
  }

  private count(kind: number, before: number): void {
    this.counts[kind] = (this.counts[kind] ?? 0) + this.paths.count + this.texts.length - before;
  }

  /** Adds a vertex, its bulge turned over where the map mirrors. */
  private vertex({ transform: t, plain }: Surroundings, x: number, y: number, bulge: number): void {
    if (plain) this.paths.vertex(x + t[4], y + t[5], bulge);
    else
      this.paths.vertex(
        t[0] * x + t[2] * y + t[4],
        t[1] * x + t[3] * y + t[5],
        bulge === 0 || determinant(t) >= 0 ? bulge : -bulge,
      );
  }

  /** Adds the vertex at x, y and a height. */
  private highVertex(around: Surroundings, x: number, y: number, z: number): void {
    if (around.space === null) this.vertex(around, x, y, 0);
    else this.paths.vertex(...apply(seenFromAbove(around.space, z), [x, y]), 0);
  }

  private line(row: number, owner: PathOwner, around: Surroundings): void {
    const { at, numbers: n, flags } = this.drawing;
    const i = at[row];
    const high = (flags[row] & Flag.heights) !== 0;
    if (high) owner.elevation = (n[i + 4] + n[i + 5]) / 2;
    this.paths.begin(owner, 0);
    this.highVertex(around, n[i], n[i + 1], high ? n[i + 4] : 0);
    this.highVertex(around, n[i + 2], n[i + 3], high ? n[i + 5] : 0);
  }

  private runs(at: number, owner: PathOwner, around: Surroundings): void {
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

  private polyline(row: number, owner: PathOwner, around: Surroundings): void {
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
      this.bulgedSide(around, x, y, numbers[at[row] + 2 * next], numbers[at[row] + 2 * next + 1], bulge);
    }
  }

  /** The inner points of a bulged side that an uneven scale makes elliptic. */
  private bulgedSide(around: Surroundings, x1: number, y1: number, x2: number, y2: number, bulge: number): void {
    const {
      centre: [cx, cy],
      radius,
      start,
      sweep,
    } = arcOfBulge([x1, y1], [x2, y2], bulge);
    const points: Point[] = [];
    this.roundPoints(around, cx, cy, [radius, 0], [0, radius], start, start + sweep, (p) => points.push(p));
    for (const p of points.slice(0, -1)) this.paths.vertex(...p, 0);
  }

  /** Points of an ellipse after the map, the first left out. */
  private roundPoints(
    { transform }: Surroundings,
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
    around: Surroundings,
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

  private ellipse(numbers: ArrayLike<number>, owner: PathOwner, around: Surroundings): void {
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
  private splinePoints(data: SplineData, around: Surroundings, visit: (p: Point) => void): void {
    const found = splineCurve(data);
    if (found === null) return;
    const { curve, breaks } = found;
    const seen = (t: number) => apply(around.transform, curve(t));
    const corners = breaks.map(seen);
    const size = Math.max(...([0, 1] as const).map((axis) => extent(corners, axis)));
    visit(corners[0]);
    alongCurve(seen, breaks, this.sagitta ?? size * sagittaShare, visit);
  }

  private spline(at: number, owner: PathOwner, around: Surroundings): void {
    const points: Point[] = [];
    this.splinePoints(splineAt(this.drawing.numbers, at).spline, around, (p) => points.push(p));
    if (points.length < 2) return;
    this.paths.begin(owner, 0);
    for (const p of points) this.paths.vertex(...p, 0);
  }

  /** A hatch is its boundary loops. */
  private hatch(at: number, owner: PathOwner, around: Surroundings): void {
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
  private hatchEdge(edge: Edge, around: Surroundings): EdgePart {
    const { transform } = around;
    const points: Point[] = [];
    const add = (p: Point) => {
      points.push(p);
    };
    if (edge.kind === 'side') {
      const [x1, y1, x2, y2, bulge] = edge.numbers;
      add(apply(transform, [x1, y1]));
      if (bulge !== 0 && evenScale(transform) === null) {
        const {
          centre: [cx, cy],
          radius,
          start,
          sweep,
        } = arcOfBulge([x1, y1], [x2, y2], bulge);
        this.roundPoints(around, cx, cy, [radius, 0], [0, radius], start, start + sweep, add);
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

  private text(row: number, owner: PathOwner, around: Surroundings): void {
    const { at, numbers } = this.drawing;
    const [x, y, height, angle, widthFactor, across, up, string] = numbers.subarray(at[row], at[row] + 8);
    this.writeText({ x, y, height, angle, widthFactor, across, up }, stringOf(this.drawing, string), owner, around);
  }

  private writeText(
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
    { transform: t }: Surroundings,
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

  private insert(row: number, owner: PathOwner, around: Surroundings): void {
    const { drawing } = this;
    const kind = drawing.kind[row];
    const [x, y, sx, sy, angle, block, columns, rows, dx, dy, sz] = drawing.numbers.subarray(
      drawing.at[row],
      drawing.at[row] + 11,
    );
    if (kind === Kind.dimension && (block < 0 || drawing.blocks[block].count === 0)) {
      const picture = dimensionPicture(drawing, row);
      for (const [a, b] of picture.lines) {
        this.paths.begin(owner, 0);
        this.vertex(around, ...a, 0);
        this.vertex(around, ...b, 0);
      }
      if (picture.text)
        this.writeText({ ...picture.text, widthFactor: 1, across: 1, up: 2 }, picture.text.text, owner, around);
      return;
    }
    // The reader has accounted for inserts whose block is not in the file.
    if (block < 0) return;
    if (this.open.has(block)) {
      this.stopped.recursion += 1;
      return;
    }
    if (around.depth >= this.limits.nesting) {
      this.stopped.nesting += 1;
      return;
    }
    if (drawing.blocks[block].count === 0) return;
    // What an insert within another comes to is counted with the outer one.
    if (around.depth === 0 && this.expands(row, block)) return;
    const [bx, by] = drawing.blocks[block].base;
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const normal = planeOf(drawing, row);
    // A plane seen from behind mirrors; only a tilted one, or a height under one, needs the third dimension.
    const flat = around.space === null && (normal === null || Math.hypot(normal[0], normal[1]) < 1e-9);
    const mirror: Transform = normal !== null ? [-1, 0, 0, 1, 0, 0] : [1, 0, 0, 1, 0, 0];
    const outer = flat
      ? null
      : composeSpace(
          around.space ?? spaceOf(around.transform),
          normal === null ? spaceOf([1, 0, 0, 1, 0, 0]) : planeSpace(normal),
        );
    const ownFrozen = drawing.layers[owner.layer].frozen ? owner.layer : -1;
    const ownKind = kind === Kind.insert ? -1 : kind;
    const inner = {
      layer: owner.layer,
      frozen: around.frozen >= 0 ? around.frozen : ownFrozen,
      colour: owner.colour,
      pen: owner.pen,
      kind: around.kind >= 0 ? around.kind : ownKind,
      chain: this.chain(around.chain, block),
      top: owner.top,
      depth: around.depth + 1,
      plain: false,
    };
    for (let j = 0; j < rows && !this.stopped.primitives; j += 1) {
      for (let i = 0; i < columns && !this.stopped.primitives; i += 1) {
        const [ox, oy] = [i * dx, j * dy];
        const place = compose(
          [c, s, -s, c, x + c * ox - s * oy, y + s * ox + c * oy],
          [sx, 0, 0, sy, -bx * sx, -by * sy],
        );
        const space = outer === null ? null : composeSpace(outer, upright(place, sz, elevationOf(drawing, row)));
        const transform = space === null ? compose(around.transform, compose(mirror, place)) : seenFromAbove(space, 0);
        // Blocks that hold nothing visible add no primitive, however often they are nested: visits are limited too.
        this.visited += 1;
        if (this.visited >= this.limits.primitives) this.stopped.primitives = true;
        this.block(block, { ...inner, transform, space });
      }
    }
  }

  /** Whether an insert comes to more parts than one may; it is told then. */
  private expands(row: number, block: number): boolean {
    const parts = this.expansion.ofInsert(row);
    if (parts <= this.limits.expansion) return false;
    this.stopped.expansions.push({ entity: row, block: this.drawing.blocks[block].name, parts });
    return true;
  }

  private chain(parent: number, block: number): number {
    const key = parent * this.drawing.blocks.length + block;
    let index = this.chainOf.get(key);
    if (index === undefined) {
      index = this.chains.length;
      this.chains.push({ block, parent });
      this.chainOf.set(key, index);
    }
    return index;
  }
}

/** A map of the plane that also scales heights and lifts. */
const upright = (t: Transform, scale: number, z: number): Space =>
  spaceOf(t).map((value, i) => {
    if (i === 10) return scale;
    if (i === 11) return z;
    return value;
  });

const extent = (points: readonly Point[], axis: 0 | 1): number =>
  points.reduce((most, p) => Math.max(most, p[axis]), -Infinity) -
  points.reduce((least, p) => Math.min(least, p[axis]), Infinity);

/** The counter-clockwise turn from one angle to another, in (0, 2 pi]. */
function sweepOf(start: number, end: number): number {
  const turn = (end - start) % (2 * Math.PI);
  return turn <= 1e-12 ? turn + 2 * Math.PI : turn;
}
