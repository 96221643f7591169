import { metresPerDrawn, place, placer, type Placement } from '@/core/datum/placement';
import { handleOf, type Drawing } from '@/core/drawing/drawing';
import type { Point } from '@/core/geometry/vector';
import { PathFlag, pathCount, type Primitives } from '@/core/underlay/primitives';
import { centreOfText } from '@/core/underlay/textBox';
import { alikeIn, type Likeness } from '@/core/sorting/alike';
import { classifySteps } from '@/core/sorting/classify/classify';
import type { From, PlacedPath, PlacedText } from '@/core/placed/placed';
import type { Role } from '@/core/sorting/roles';
import { atOnce, type Stepwise } from '@/core/stepwise';

/** Roles that go before those of layers: of lines picked by hand, by their handles, and of blocks, by their names. */
export interface PickedRoles {
  lines: ReadonlyMap<string, Role>;
  blocks: ReadonlyMap<string, Role>;
  /** Of everything alike; the first that it is like counts. */
  alike?: readonly { like: Likeness; role: Role }[];
}

const nonePicked: PickedRoles = { lines: new Map(), blocks: new Map() };

/** The roles of paths and texts that are like something somebody has put right, by their numbers. */
interface Taught {
  paths: ReadonlyMap<number, Role>;
  texts: ReadonlyMap<number, Role>;
}

/** What reading looks at: one drawing, placed, with the role of each layer, of blocks and of picked lines. */
export class Scene {
  /** The role of everything on a chain of blocks, where one of them has one: the innermost counts. */
  private readonly roleOfChain: (Role | null)[];
  private layersByHandle: Map<string, number[]> | null = null;
  private blocksByHandle: Map<string, string> | null = null;
  private sources = new Map<number, From>();
  private readonly taught: Taught;
  /** The role of every path; made when the first is asked for. */
  private roles: (Role | null)[] | null = null;

  constructor(
    readonly drawing: Drawing,
    readonly primitives: Primitives,
    readonly placement: Placement,
    readonly roleOfLayer: readonly (Role | null)[],
    private readonly picked: PickedRoles = nonePicked,
  ) {
    const named = (block: number): Role | null =>
      block < 0 ? null : (picked.blocks.get(drawing.blocks[block].name) ?? null);
    this.taught = taughtIn(drawing, primitives, picked.alike ?? [], metresPerDrawn(placement));
    this.roleOfChain = [];
    if (picked.blocks.size > 0)
      for (const [i, { block, parent }] of primitives.chains.entries())
        this.roleOfChain.push(named(block) ?? (i === 0 ? null : this.roleOfChain[parent]));
  }

  /** The role of something by what was picked, else of its layer. */
  private roleAt(layer: number, chain: number, top: number, taught: Role | undefined): Role | null {
    const { lines } = this.picked;
    return (
      (lines.size > 0 ? lines.get(handleOf(this.drawing, top)) : undefined) ??
      taught ??
      this.roleOfChain[chain] ??
      this.roleOfLayer[layer]
    );
  }

  /** Tells the role of every path, in steps: what lies on a layer of everything is looked at first. */
  *sorted(): Stepwise<readonly (Role | null)[]> {
    if (this.roles !== null) return this.roles;
    const { layer, chain, top } = this.primitives;
    const given = Array.from({ length: pathCount(this.primitives) }, (_, path) =>
      this.roleAt(layer[path], chain[path], top[path], this.taught.paths.get(path)),
    );
    const looks = given.includes('mixed')
      ? yield* classifySteps(this.drawing, this.primitives, metresPerDrawn(this.placement))
      : [];
    this.roles = given.map((role, path) => (role === 'mixed' ? (looks[path]?.role ?? null) : role));
    return this.roles;
  }

  private rolesOfPaths(): readonly (Role | null)[] {
    return this.roles ?? atOnce(this.sorted());
  }

  /** The one object for where a path came from. */
  private sourceOf(path: number): From {
    const { entity, top, layer } = this.primitives;
    const key = top[path] * this.drawing.kind.length + entity[path];
    const known = this.sources.get(key);
    if (known) return known;
    const source = { handle: handleOf(this.drawing, top[path]), entity: entity[path], layer: layer[path] };
    this.sources.set(key, source);
    return source;
  }

  /** How many sources lie on each layer with each role. */
  drawn(): Map<Role, Map<number, number>> {
    const counts = new Map<Role, Map<number, number>>();
    const seen = new Set<From>();
    this.rolesOfPaths().forEach((role, path) => {
      const source = this.sourceOf(path);
      if (role === null || seen.has(source)) return;
      seen.add(source);
      const layers = counts.get(role) ?? new Map<number, number>();
      counts.set(role, layers.set(source.layer, (layers.get(source.layer) ?? 0) + 1));
    });
    return counts;
  }

  /** The layers that what came by some handles lies on. */
  layersOf(handles: readonly string[]): number[] {
    if (this.layersByHandle === null) {
      this.layersByHandle = new Map();
      const { layer, top } = this.primitives;
      for (let p = 0; p < layer.length; p += 1) {
        const handle = handleOf(this.drawing, top[p]);
        const known = this.layersByHandle.get(handle);
        if (known === undefined) this.layersByHandle.set(handle, [layer[p]]);
        else if (!known.includes(layer[p])) known.push(layer[p]);
      }
    }
    return [...new Set(handles.flatMap((handle) => this.layersByHandle!.get(handle) ?? []))];
  }

  /** The outermost block through which what came by a handle is there; null of what is drawn by itself. */
  blockOf(handle: string): string | null {
    if (this.blocksByHandle === null) {
      this.blocksByHandle = new Map();
      const { chain, chains, top } = this.primitives;
      chain.forEach((own, path) => {
        if (own === 0) return;
        let outer = own;
        while (chains[outer].parent !== 0) outer = chains[outer].parent;
        this.blocksByHandle!.set(handleOf(this.drawing, top[path]), this.drawing.blocks[chains[outer].block].name);
      });
    }
    return this.blocksByHandle.get(handle) ?? null;
  }

  /** The same where grid lines and columns are read of the same paths and texts. */
  frameKey(): string {
    const paths = this.rolesOfPaths().flatMap((role, path) => (role === 'grid' || role === 'column' ? [path] : []));
    const lettered = this.roleOfLayer.flatMap((role, i) =>
      role === 'grid' || role === 'label' || role === 'mixed' ? [i] : [],
    );
    return `${paths.join()} ${lettered.join()}`;
  }

  /** The paths whose layer has the role. */
  paths(role: Role): PlacedPath[] {
    return this.pathsWhere((path) => this.rolesOfPaths()[path] === role);
  }

  /** The paths that came by some handles, whatever their role. */
  pathsOf(handles: ReadonlySet<string>): PlacedPath[] {
    const { top } = this.primitives;
    return this.pathsWhere((path) => handles.has(handleOf(this.drawing, top[path])));
  }

  private pathsWhere(wanted: (path: number) => boolean): PlacedPath[] {
    const { start, xy, bulge, flags, elevation, origin } = this.primitives;
    const metres = metresPerDrawn(this.placement);
    const found: PlacedPath[] = [];
    const at = placer(this.placement);
    for (let p = 0; p < flags.length; p += 1) {
      if (!wanted(p)) continue;
      const points: Point[] = [];
      const bulges: number[] = [];
      for (let v = start[p]; v < start[p + 1]; v += 1) {
        points.push(at(xy[2 * v] + origin[0], xy[2 * v + 1] + origin[1]));
        bulges.push(bulge[v]);
      }
      const source = this.sourceOf(p);
      found.push({
        points,
        bulges,
        closed: (flags[p] & PathFlag.closed) !== 0,
        circle: (flags[p] & PathFlag.circle) !== 0,
        ...(elevation[p] === 0 ? {} : { elevation: elevation[p] * metres }),
        ...source,
        source,
      });
    }
    return found;
  }

  /** The texts whose layer has one of the roles; one on a mixed layer may belong to anything. */
  texts(...wanted: Role[]): PlacedText[] {
    return this.textsWhere((role) => role === 'mixed' || wanted.includes(role ?? 'ignore'));
  }

  /** The texts whose layer has the role, and no other. */
  ownTexts(wanted: Role): PlacedText[] {
    return this.textsWhere((role) => role === wanted);
  }

  private textsWhere(wanted: (role: Role | null) => boolean): PlacedText[] {
    const { texts, origin } = this.primitives;
    const unit = Math.hypot(...subtractPoints(place(this.placement, [1, 0]), place(this.placement, [0, 0])));
    return texts
      .filter((text, i) => wanted(this.roleAt(text.layer, text.chain, text.top, this.taught.texts.get(i))))
      .map((text) => {
        const [x, y] = centreOfText(text);
        return {
          text: text.text.trim(),
          at: place(this.placement, [x + origin[0], y + origin[1]]),
          height: text.height * unit,
          angle: this.placement.turning + (this.placement.mirrored ? Math.PI - text.angle : text.angle),
          handle: handleOf(this.drawing, text.top),
          entity: text.entity,
          layer: text.layer,
        };
      });
  }
}

/** @param metres per drawing unit */
function taughtIn(
  drawing: Drawing,
  primitives: Primitives,
  lessons: NonNullable<PickedRoles['alike']>,
  metres: number,
): Taught {
  const [paths, texts] = [new Map<number, Role>(), new Map<number, Role>()];
  for (const { like, role } of lessons) {
    const found = alikeIn(drawing, primitives, like, metres);
    for (const path of found.paths) if (!paths.has(path)) paths.set(path, role);
    for (const text of found.texts) if (!texts.has(text)) texts.set(text, role);
  }
  return { paths, texts };
}

const subtractPoints = (a: Point, b: Point): [number, number] => [a[0] - b[0], a[1] - b[1]];
