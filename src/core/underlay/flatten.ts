import { composeSpace, planeSpace, seenFromAbove, spaceOf, type Space } from '@/core/geometry/space';
import { compose, type Transform } from '@/core/geometry/transform';
import { blockKinds, elevationOf, Flag, Kind, planeOf, runKinds, type Drawing } from '@/core/drawing/drawing';
import { defaultLimits, type ReadLimits } from '@/core/drawing/limits';
import { Expansion } from './expansion';
import { resolveColour } from './colours';
import { dimensionPicture } from './dimensionPicture';
import { cutEndless } from './endless';
import { Paths, type PathOwner } from './paths';
import { Pens } from './pens';
import { ink, type Chain, type Primitives } from './primitives';
import { Shapes, type Placing } from './shapes';

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
interface Surroundings extends Placing {
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
}

class Flattener {
  private paths = new Paths();
  private counts: Record<number, number> = {};
  private stopped: Primitives['limits'] = { nesting: 0, recursion: 0, primitives: false, expansions: [] };
  private expansion: Expansion;
  private open = new Set<number>();
  private visited = 0;
  private origin: [number, number];
  private chains: Chain[] = [{ block: -1, parent: -1 }];
  private chainOf = new Map<number, number>();
  private pens: Pens;
  private shapes: Shapes;

  constructor(
    private drawing: Drawing,
    private limits: ReadLimits,
    sagitta: number | null,
  ) {
    this.shapes = new Shapes(drawing, this.paths, sagitta);
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
    const { endless, texts } = this.shapes;
    if (endless.length > 0) {
      for (const { from, to, owner } of cutEndless(endless, this.paths.xy.array.subarray(0, this.paths.xy.length))) {
        this.paths.begin(owner, 0);
        for (const p of [from, to]) this.paths.vertex(...p, 0);
        this.counts[owner.kind] = (this.counts[owner.kind] ?? 0) + 1;
      }
    }
    return {
      origin: this.origin,
      ...this.paths.finish(),
      texts,
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
    const before = this.drawn;
    if (blockKinds[kind] === 1) {
      this.insert(row, owner, above);
      if (around.depth === 0) this.count(kind, before);
      return;
    }
    this.shapes.draw(kind, row, owner, around);
    this.count(kind, before);
    if (this.drawn >= this.limits.primitives) this.stopped.primitives = true;
  }

  /** The surroundings as seen from above for a row that lies in a plane of its own, or under something tilted. */
  private inPlane(row: number, around: Surroundings): Surroundings {
    const normal = planeOf(this.drawing, row);
    const outer = around.space ?? spaceOf(around.transform);
    const space = normal === null ? outer : composeSpace(outer, planeSpace(normal));
    return { ...around, transform: seenFromAbove(space, elevationOf(this.drawing, row)), space, plain: false };
  }

  /** How many primitives there are. */
  private get drawn(): number {
    return this.paths.count + this.shapes.texts.length;
  }

  private count(kind: number, before: number): void {
    this.counts[kind] = (this.counts[kind] ?? 0) + this.drawn - before;
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
      for (const [a, b] of picture.lines) this.shapes.stroke(owner, around, a, b);
      if (picture.text)
        this.shapes.writeText({ ...picture.text, widthFactor: 1, across: 1, up: 2 }, picture.text.text, owner, around);
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
