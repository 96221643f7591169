import { bulgeOfSweep } from '@/core/geometry/bulge';
import { compose, determinant, evenScale, type Transform } from '@/core/geometry/transform';
import { Flag, Kind, stringOf, vertexCount, type Drawing } from '@/core/drawing/drawing';
import { defaultLimits, type ReadLimits } from '@/core/drawing/limits';
import { resolveColour } from './colours';
import { Paths, type PathOwner } from './paths';
import { ink, PathFlag, type Primitives, type TextPrimitive } from './primitives';

/** Chords of a full turn where a circle becomes an ellipse: the sagitta is then r (1 - cos(pi / 96)), about 0.05 % of the radius. */
const chordsOfEllipse = 96;

/**
 * Flattens a drawing: blocks taken apart through all their scales, turnings and mirrorings, arrays laid out,
 * layer 0 and by-block colours resolved, arcs and circles kept as bulges where the map keeps them round.
 *
 * @param limits stops a block within itself, too deep nesting and more primitives than allowed; what was
 *   stopped is told in `limits` of the result
 */
export function flatten(drawing: Drawing, limits: ReadLimits = defaultLimits): Primitives {
  return new Flattener(drawing, limits).run();
}

/** What a block's content inherits from its insert. */
interface Surroundings { transform: Transform; layer: number; colour: number; top: number; depth: number; plain: boolean }

class Flattener {
  private paths = new Paths();
  private texts: TextPrimitive[] = [];
  private counts: Record<number, number> = {};
  private missingBlocks = 0;
  private stopped = { nesting: 0, recursion: 0, primitives: false };
  private open = new Set<number>();
  private visited = 0;
  private origin: [number, number];

  constructor(private drawing: Drawing, private limits: ReadLimits) {
    this.origin = this.localOrigin();
  }

  run(): Primitives {
    const { drawing } = this;
    const transform: Transform = [1, 0, 0, 1, -this.origin[0], -this.origin[1]];
    this.block(drawing.model, { transform, layer: 0, colour: ink, top: -1, depth: 0, plain: true });
    return { origin: this.origin, ...this.paths.finish(), texts: this.texts, counts: this.counts, missingBlocks: this.missingBlocks, limits: this.stopped };
  }

  /** A whole point amid the model space: the median of its entities' first points, which strays do not move. */
  private localOrigin(): [number, number] {
    const { blocks, model, at, numbers } = this.drawing;
    const { first, count } = blocks[model];
    const step = Math.max(1, Math.floor(count / 1001));
    const [xs, ys]: [number[], number[]] = [[], []];
    for (let row = first; row < first + count; row += step) { xs.push(numbers[at[row]]); ys.push(numbers[at[row] + 1]); }
    const median = (values: number[]) => Math.round(values.sort((a, b) => a - b)[values.length >> 1] ?? 0);
    return [median(xs), median(ys)];
  }

  private block(index: number, around: Surroundings): void {
    const { first, count } = this.drawing.blocks[index];
    this.open.add(index);
    for (let row = first; row < first + count && !this.stopped.primitives; row += 1) this.row(row, around);
    this.open.delete(index);
  }

  private row(row: number, around: Surroundings): void {
    const { drawing } = this;
    const flags = drawing.flags[row];
    if ((flags & (Flag.paper | Flag.invisible)) !== 0) return;
    const layer = drawing.layer[row] === 0 && around.depth > 0 ? around.layer : drawing.layer[row];
    const owner: PathOwner = {
      layer, colour: resolveColour(drawing, drawing.styles[drawing.style[row]].colour, layer, around.colour),
      entity: row, top: around.depth === 0 ? row : around.top,
    };
    const kind = drawing.kind[row];
    const before = this.paths.count + this.texts.length;
    if (kind === Kind.insert) {
      this.insert(row, owner, around);
      if (around.depth === 0) this.count(kind, before);
      return;
    }
    const at = drawing.at[row];
    const n = drawing.numbers;
    switch (kind) {
      case Kind.line:
        this.paths.begin(owner, 0);
        this.vertex(around, n[at], n[at + 1], 0);
        this.vertex(around, n[at + 2], n[at + 3], 0);
        break;
      case Kind.polyline:
      case Kind.heavyPolyline: this.polyline(row, owner, around); break;
      case Kind.arc: this.arc(owner, around, n[at], n[at + 1], n[at + 2], n[at + 3], sweepOf(n[at + 3], n[at + 4])); break;
      case Kind.circle: this.arc(owner, around, n[at], n[at + 1], n[at + 2], 0, 2 * Math.PI); break;
      case Kind.text:
      case Kind.multilineText:
      case Kind.attribute: this.text(row, owner, around); break;
      case Kind.point:
        this.paths.begin(owner, 0);
        this.vertex(around, n[at], n[at + 1], 0);
        break;
    }
    this.count(kind, before);
    if (this.paths.count + this.texts.length >= this.limits.primitives) this.stopped.primitives = true;
  }

  private count(kind: number, before: number): void {
    this.counts[kind] = (this.counts[kind] ?? 0) + this.paths.count + this.texts.length - before;
  }

  /** Adds a vertex, its bulge turned over where the map mirrors. */
  private vertex({ transform: t, plain }: Surroundings, x: number, y: number, bulge: number): void {
    if (plain) this.paths.vertex(x + t[4], y + t[5], bulge);
    else this.paths.vertex(t[0] * x + t[2] * y + t[4], t[1] * x + t[3] * y + t[5], bulge === 0 || determinant(t) >= 0 ? bulge : -bulge);
  }

  private polyline(row: number, owner: PathOwner, around: Surroundings): void {
    const { flags, at, numbers } = this.drawing;
    const count = vertexCount(this.drawing, row);
    const closed = (flags[row] & Flag.closed) !== 0;
    const bulged = (flags[row] & Flag.bulges) !== 0;
    const round = !bulged || evenScale(around.transform) !== null;
    this.paths.begin(owner, closed ? PathFlag.closed : 0);
    for (let i = 0; i < count; i += 1) {
      const [x, y] = [numbers[at[row] + 2 * i], numbers[at[row] + 2 * i + 1]];
      const bulge = bulged ? numbers[at[row] + 2 * count + i] : 0;
      if (round || bulge === 0) { this.vertex(around, x, y, bulge); continue; }
      const next = i + 1 < count ? i + 1 : 0;
      this.vertex(around, x, y, 0);
      if (next === 0 && !closed) continue;
      this.chords(around, x, y, numbers[at[row] + 2 * next], numbers[at[row] + 2 * next + 1], bulge);
    }
  }

  /** The inner points of a bulged side that an uneven scale makes elliptic. */
  private chords(around: Surroundings, x1: number, y1: number, x2: number, y2: number, bulge: number): void {
    const offset = (1 - bulge * bulge) / (4 * bulge);
    const [cx, cy] = [(x1 + x2) / 2 - (y2 - y1) * offset, (y1 + y2) / 2 + (x2 - x1) * offset];
    const sweep = 4 * Math.atan(bulge);
    const [radius, start] = [Math.hypot(x1 - cx, y1 - cy), Math.atan2(y1 - cy, x1 - cx)];
    const count = Math.max(2, Math.ceil((Math.abs(sweep) / (2 * Math.PI)) * chordsOfEllipse));
    for (let i = 1; i < count; i += 1) this.vertex(around, cx + radius * Math.cos(start + (sweep * i) / count), cy + radius * Math.sin(start + (sweep * i) / count), 0);
  }

  /** A circular arc; a whole turn is a closed path. */
  private arc(owner: PathOwner, around: Surroundings, cx: number, cy: number, radius: number, start: number, sweep: number): void {
    const whole = sweep >= 2 * Math.PI - 1e-12;
    const round = evenScale(around.transform) !== null;
    // A bulge grows without bound towards a full turn, so no side covers more than a half.
    const sides = round ? (sweep > Math.PI ? 2 : 1) : Math.max(2, Math.ceil((sweep / (2 * Math.PI)) * chordsOfEllipse));
    const bulge = round ? bulgeOfSweep(sweep / sides) : 0;
    this.paths.begin(owner, whole ? PathFlag.closed | (round ? PathFlag.circle : 0) : 0);
    for (let i = 0; i < sides + (whole ? 0 : 1); i += 1) {
      const angle = start + (sweep * i) / sides;
      this.vertex(around, cx + radius * Math.cos(angle), cy + radius * Math.sin(angle), i < sides ? bulge : 0);
    }
  }

  private text(row: number, owner: PathOwner, around: Surroundings): void {
    const { flags, at, numbers } = this.drawing;
    const [x, y, height, angle, widthFactor, across, up, string] = numbers.subarray(at[row], at[row] + 8);
    const t = around.transform;
    const [ux, uy] = [t[0] * Math.cos(angle) + t[2] * Math.sin(angle), t[1] * Math.cos(angle) + t[3] * Math.sin(angle)];
    const mirrored = ((flags[row] & Flag.mirrored) !== 0) !== determinant(t) < 0;
    const along = Math.hypot(ux, uy);
    const rise = along === 0 ? 0 : Math.abs(determinant(t)) / along;
    this.texts.push({
      x: t[0] * x + t[2] * y + t[4], y: t[1] * x + t[3] * y + t[5], height: height * rise, angle: Math.atan2(uy, ux),
      widthFactor: rise === 0 ? widthFactor : (widthFactor * along) / rise, mirrored, across, up, text: stringOf(this.drawing, string), ...owner,
    });
  }

  private insert(row: number, owner: PathOwner, around: Surroundings): void {
    const { drawing } = this;
    const [x, y, sx, sy, angle, block, columns, rows, dx, dy] = drawing.numbers.subarray(drawing.at[row], drawing.at[row] + 10);
    if (block < 0) { this.missingBlocks += 1; return; }
    if (this.open.has(block)) { this.stopped.recursion += 1; return; }
    if (around.depth >= this.limits.nesting) { this.stopped.nesting += 1; return; }
    if (drawing.blocks[block].count === 0) return;
    const [bx, by] = drawing.blocks[block].base;
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const mirror: Transform = (drawing.flags[row] & Flag.mirrored) !== 0 ? [-1, 0, 0, 1, 0, 0] : [1, 0, 0, 1, 0, 0];
    for (let j = 0; j < rows && !this.stopped.primitives; j += 1) {
      for (let i = 0; i < columns && !this.stopped.primitives; i += 1) {
        const [ox, oy] = [i * dx, j * dy];
        const place: Transform = [c, s, -s, c, x + c * ox - s * oy, y + s * ox + c * oy];
        const transform = compose(around.transform, compose(mirror, compose(place, [sx, 0, 0, sy, -bx * sx, -by * sy])));
        // Blocks that hold nothing visible add no primitive, however often they are nested: visits are limited too.
        this.visited += 1;
        if (this.visited >= this.limits.primitives) this.stopped.primitives = true;
        this.block(block, { transform, layer: owner.layer, colour: owner.colour, top: owner.top, depth: around.depth + 1, plain: false });
      }
    }
  }
}

/** The counter-clockwise turn from one angle to another, in (0, 2 pi]. */
function sweepOf(start: number, end: number): number {
  const turn = (end - start) % (2 * Math.PI);
  return turn <= 1e-12 ? turn + 2 * Math.PI : turn;
}
