import type { Box } from '@/core/geometry/boxIndex';
import type { Point } from '@/core/geometry/vector';
import type { ElementKind, ElementOf, ElementRow } from '@/core/kinds/element';
import { endsOf } from '@/core/kinds/kinds';
import type { Wall } from '@/core/kinds/wall';
import { Buckets } from './buckets';
import { LevelBoxes } from './levelBoxes';

/** An element before and after an edit; null where there is none. */
export interface ElementDiff {
  id: string;
  before: ElementRow | null;
  after: ElementRow | null;
}

/** Ends share a point where its coordinates are exactly the same: reading and tracing see to that. */
const nodeKey = (levelId: string | null, [x, y]: Point): string => `${levelId} ${x} ${y}`;

/** The elements of a model by everything they are looked for by; it follows every edit by what the edit changed. */
export class ModelIndex {
  private readonly elements = new Map<string, ElementRow>();
  private readonly levels = new Buckets<string | null, ElementRow>();
  private readonly kinds = new Buckets<ElementKind, ElementRow>();
  private readonly openings = new Buckets<string, ElementOf<'opening'>>();
  private readonly users = new Buckets<string, ElementRow>();
  private readonly sources = new Buckets<string, ElementRow>();
  private readonly nodes = new Buckets<string, ElementRow>();
  private readonly boxes = new Map<string | null, LevelBoxes>();

  load(elements: readonly ElementRow[]): void {
    for (const element of elements) this.add(element);
  }

  /** Takes over what an edit changed. */
  follow(diffs: readonly ElementDiff[]): void {
    for (const { before, after } of diffs) {
      if (before !== null) this.remove(before);
      if (after !== null) this.add(after);
    }
    this.followBoxes(diffs);
  }

  private add(element: ElementRow): void {
    this.elements.set(element.id, element);
    this.levels.add(element.levelId, element);
    this.kinds.add(element.kind, element);
    if (element.kind === 'opening') this.openings.add(element.shape.wall, element);
    if (element.libraryId) this.users.add(element.libraryId, element);
    if (element.source !== null) this.sources.add(element.source.drawing, element);
    for (const end of endsOf(element)) this.nodes.add(nodeKey(element.levelId, end), element);
  }

  private remove(element: ElementRow): void {
    this.elements.delete(element.id);
    this.levels.remove(element.levelId, element.id);
    this.kinds.remove(element.kind, element.id);
    if (element.kind === 'opening') this.openings.remove(element.shape.wall, element.id);
    if (element.libraryId) this.users.remove(element.libraryId, element.id);
    if (element.source !== null) this.sources.remove(element.source.drawing, element.id);
    for (const end of endsOf(element)) this.nodes.remove(nodeKey(element.levelId, end), element.id);
  }

  /** Boxes follow where somebody has asked for them; an opening's box goes with its wall. */
  private followBoxes(diffs: readonly ElementDiff[]): void {
    if (this.boxes.size === 0) return;
    const concerned = new Map<string | null, Set<string>>();
    const touch = (levelId: string | null, id: string): void => {
      const ids = concerned.get(levelId);
      if (ids) ids.add(id);
      else concerned.set(levelId, new Set([id]));
    };
    for (const { id, before, after } of diffs) {
      for (const element of [before, after]) if (element !== null) touch(element.levelId, id);
      for (const opening of this.openings.of(id)) touch(opening.levelId, opening.id);
    }
    for (const [levelId, ids] of concerned) {
      const boxes = this.boxes.get(levelId);
      if (boxes === undefined) continue;
      const here = Array.from(ids, (id): [string, ElementRow | null] => {
        const element = this.elements.get(id);
        return [id, element?.levelId === levelId ? element : null];
      });
      // Whoever asks next has them made anew.
      if (!boxes.follow(here)) this.boxes.delete(levelId);
    }
  }

  /** The wall that an opening is in; null for other kinds, and where it is not there. */
  hostOf(element: ElementRow): Wall | null {
    if (element.kind !== 'opening') return null;
    const wall = this.elements.get(element.shape.wall);
    return wall?.kind === 'wall' ? wall.shape : null;
  }

  /** The elements that belong to a level; null stands for those of no level. */
  onLevel(levelId: string | null): Iterable<ElementRow> {
    return this.levels.of(levelId);
  }

  countOnLevel(levelId: string | null): number {
    return this.levels.count(levelId);
  }

  ofKind<K extends ElementKind>(kind: K): Iterable<ElementOf<K>> {
    return this.kinds.of(kind) as Iterable<ElementOf<K>>;
  }

  /** The openings in a wall. */
  openingsOf(wallId: string): Iterable<ElementOf<'opening'>> {
    return this.openings.of(wallId);
  }

  /** The elements made of an entry of the library. */
  madeOf(entryId: string): Iterable<ElementRow> {
    return this.users.of(entryId);
  }

  /** The elements that came from a drawing. */
  fromDrawing(drawingId: string): Iterable<ElementRow> {
    return this.sources.of(drawingId);
  }

  /** The elements of a level that have an end at exactly this point. */
  endingAt(levelId: string | null, point: Point): Iterable<ElementRow> {
    return this.nodes.of(nodeKey(levelId, point));
  }

  /** The elements that belong to a level whose boxes touch a box, in no order; of the others none is looked at. */
  touching(levelId: string | null, box: Box): ElementRow[] {
    return this.boxesOf(levelId).touching(box);
  }

  /** The box round all elements of a level; null where there are none. */
  extent(levelId: string | null): Box | null {
    return this.boxesOf(levelId).extent();
  }

  private boxesOf(levelId: string | null): LevelBoxes {
    const known = this.boxes.get(levelId);
    if (known) return known;
    const made = new LevelBoxes((element) => this.hostOf(element));
    made.load([...this.onLevel(levelId)]);
    this.boxes.set(levelId, made);
    return made;
  }
}
