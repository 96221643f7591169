import { boxOf } from '@/core/geometry/boxIndex';
import { distance, type Point } from '@/core/geometry/vector';
import { areaOf, type Area } from '@/core/kinds/areas';
import type { ElementKind, ElementOf, ElementRow } from '@/core/kinds/element';
import { anchorOf, checksOf } from '@/core/kinds/kinds';
import { levelsTied } from '@/core/kinds/tie';
import type { Opening } from '@/core/kinds/opening';
import type { Wall } from '@/core/kinds/wall';
import { put, type Change, type Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import { fail, type Result } from '@/core/result';
import { defaultTolerance } from '@/core/tolerance';
import { aThing } from './words';

/** Why an element is not stored as it is, and where that is seen. */
export interface Refusal {
  id: string;
  rule: 'shape' | 'level' | 'twice' | 'overlap';
  message: string;
  at: Point | null;
}

/** What stands at one place, or runs between the same ends, is there twice within this, metres. */
const onePlace = defaultTolerance.coincidence;

/** Whether two points in plan are one. */
export const inOnePlace = (p: Point, q: Point): boolean => distance(p, q) < onePlace;

/** Whether two openings of a wall lie over one another. */
export const overlap = (a: Opening, b: Opening): boolean =>
  a.offset < b.offset + b.width - onePlace && b.offset < a.offset + a.width - onePlace;

/** The rows of an edit over those of the model. */
class Proposed {
  private readonly rows: Map<string, ElementRow>;
  private readonly inWall = new Map<string, ElementOf<'opening'>[]>();

  constructor(
    private readonly model: Model,
    rows: readonly ElementRow[],
    private readonly gone: ReadonlySet<string>,
  ) {
    this.rows = new Map(rows.map((row) => [row.id, row]));
    for (const row of rows) {
      if (row.kind !== 'opening') continue;
      const list = this.inWall.get(row.shape.wall);
      if (list) list.push(row);
      else this.inWall.set(row.shape.wall, [row]);
    }
  }

  get(id: string): ElementRow | undefined {
    return this.gone.has(id) ? undefined : (this.rows.get(id) ?? this.model.element[id]);
  }

  hostOf(element: ElementRow): Wall | null {
    const host = element.kind === 'opening' ? this.get(element.shape.wall) : undefined;
    return host?.kind === 'wall' ? host.shape : null;
  }

  /** Other elements that lie about a point of a level: those of the edit, and those it leaves as they are. */
  about(element: ElementRow, p: Point): ElementRow[] {
    const stays = this.model.index
      .touching(element.levelId, boxOf([p], onePlace))
      .filter(({ id }) => !this.rows.has(id) && !this.gone.has(id));
    return [...stays, ...(this.placed.get(placeKey(element, p)) ?? [])].filter(({ id }) => id !== element.id);
  }

  /** The elements of the edit by kind, level and place, to the tolerance. */
  private readonly placed: Map<string, ElementRow[]> = new Map();

  place(element: ElementRow, p: Point): void {
    const key = placeKey(element, p);
    const list = this.placed.get(key);
    if (list) list.push(element);
    else this.placed.set(key, [element]);
  }

  /** The openings in a wall as the edit leaves them. */
  openingsOf(wall: string): ElementOf<'opening'>[] {
    const stay = [...this.model.index.openingsOf(wall)].filter(({ id }) => !this.rows.has(id) && !this.gone.has(id));
    return [...stay, ...(this.inWall.get(wall) ?? [])];
  }
}

const placeKey = ({ kind, levelId }: ElementRow, [x, y]: Point): string =>
  `${kind} ${levelId} ${Math.round(x / onePlace)} ${Math.round(y / onePlace)}`;

/** The point by which an element of a kind that may not be there twice is compared. */
const comparedAt = (element: ElementRow): Point | null =>
  element.kind === 'grid' || element.kind === 'opening' ? null : anchorOf(element);

/** Whether two elements of one kind are the same thing twice. */
function isTwin(a: ElementRow, b: ElementRow): boolean {
  const near = inOnePlace;
  if (a.kind === 'column' && b.kind === 'column') return near(a.shape.position, b.shape.position);
  if (a.kind === 'support' && b.kind === 'support') return inOneSpot(a.shape, b.shape);
  if (a.kind === 'luminaire' && b.kind === 'luminaire') return inOneSpot(a.shape, b.shape);
  // Loads add up: several may act at one place.
  if (a.kind === 'areaLoad') return false;
  if (a.kind === 'calculationArea' && b.kind === 'calculationArea' && a.shape.rise !== b.shape.rise) return false;
  if ('outline' in a.shape && 'outline' in b.shape) return a.kind === b.kind && sameOutline(a.shape, b.shape);
  const lines = (a.kind === 'wall' && b.kind === 'wall') || (a.kind === 'beam' && b.kind === 'beam');
  if (!lines) return false;
  const [p, q] = [a.shape as Wall, b.shape as Wall];
  const ends = (near(p.start, q.start) && near(p.end, q.end)) || (near(p.start, q.end) && near(p.end, q.start));
  return ends && (a.kind === 'wall' ? Math.abs(Math.abs(p.bulge) - Math.abs(q.bulge)) < onePlace : heightsAgree(a, b));
}

/** Whether two things hang or stand at one place in space. */
const inOneSpot = (a: { position: Point; rise: number }, b: { position: Point; rise: number }): boolean =>
  inOnePlace(a.position, b.position) && Math.abs(a.rise - b.rise) < onePlace;

/** Whether two areas have one centre, which is asked before, and one size. */
const sameOutline = (a: Area, b: Area): boolean => Math.abs(areaOf(a) - areaOf(b)) < onePlace;

/** Beams over one another, as the chords of a truss, are two. */
function heightsAgree(a: ElementRow, b: ElementRow): boolean {
  return a.kind === 'beam' && b.kind === 'beam' && (a.shape.drop ?? 0) === (b.shape.drop ?? 0);
}

function shapeRefusals(element: ElementRow, host: Wall | null): Refusal[] {
  return checksOf(element, host).map((message) => ({
    id: element.id,
    rule: 'shape',
    message: `${aThing(element.kind, true)} is not stored: ${message}`,
    at: anchorOf(element, host),
  }));
}

function levelRefusals(model: Model, element: ElementRow): Refusal[] {
  const loose = levelsTied(element).find((id) => !model.level[id]);
  if (loose !== undefined)
    return [
      {
        id: element.id,
        rule: 'level',
        message: `${aThing(element.kind, true)} would be tied to a level that is not there. Tie it to another, or to none.`,
        at: anchorOf(element),
      },
    ];
  if (element.kind === 'grid' || (element.levelId !== null && model.level[element.levelId])) return [];
  const message = `${aThing(element.kind, true)} belongs to no level that there is. Choose a level in the ladder, and repeat the step.`;
  return [{ id: element.id, rule: 'level', message, at: anchorOf(element) }];
}

function twinRefusals(element: ElementRow, proposed: Proposed): Refusal[] {
  const at = comparedAt(element);
  if (at === null || !proposed.about(element, at).some((other) => isTwin(element, other))) return [];
  const verb: Partial<Record<ElementKind, string>> = {
    column: 'stands',
    wall: 'runs',
    beam: 'runs',
    luminaire: 'hangs',
  };
  const where = verb[element.kind] ?? 'lies';
  return [{ id: element.id, rule: 'twice', message: `${aThing(element.kind, true)} ${where} there already.`, at }];
}

function overlapRefusals(element: ElementRow, proposed: Proposed): Refusal[] {
  if (element.kind !== 'opening') return [];
  const { wall, width } = element.shape;
  const over = proposed.openingsOf(wall).find(({ id, shape }) => id !== element.id && overlap(shape, element.shape));
  if (over === undefined) return [];
  const message =
    `A ${element.shape.use} of ${width.toFixed(2)} m would lie over the ${over.shape.use} ` +
    'beside it. Make it narrower, or put it elsewhere.';
  return [{ id: element.id, rule: 'overlap', message, at: anchorOf(element, proposed.hostOf(element)) }];
}

/** Rows with the openings that stay in walls among them: a wall that is cut back may leave its door in the air. */
function withOpenings(model: Model, rows: readonly ElementRow[], gone: ReadonlySet<string>): ElementRow[] {
  const own = new Set(rows.map(({ id }) => id));
  const more = rows.flatMap((row) =>
    row.kind === 'wall' ? [...model.index.openingsOf(row.id)].filter(({ id }) => !own.has(id) && !gone.has(id)) : [],
  );
  return [...rows, ...more];
}

/** Whatever keeps rows from being stored as they are, over what the model has. @param gone ids that go with the edit */
export function refusalsOf(
  model: Model,
  rows: readonly ElementRow[],
  gone: ReadonlySet<string> = new Set(),
): Refusal[] {
  const proposed = new Proposed(model, rows, gone);
  for (const row of rows) {
    const at = comparedAt(row);
    if (at !== null) proposed.place(row, at);
  }
  return rows.flatMap((row) => [
    ...shapeRefusals(row, proposed.hostOf(row)),
    ...levelRefusals(model, row),
    ...twinRefusals(row, proposed),
    ...overlapRefusals(row, proposed),
  ]);
}

/** What is wrong with rows that was not so before: an element that came in broken may still be moved. */
export function newRefusals(
  model: Model,
  rows: readonly ElementRow[],
  gone: ReadonlySet<string> = new Set(),
): Refusal[] {
  const concerned = withOpenings(model, rows, gone);
  const found = refusalsOf(model, concerned, gone);
  if (found.length === 0) return found;
  const ids = new Set(found.map(({ id }) => id));
  const before = concerned.flatMap(({ id }) => (ids.has(id) ? (model.element[id] ?? []) : []));
  const known = new Set(refusalsOf(model, before).map(({ id, rule }) => `${id} ${rule}`));
  return found.filter(({ id, rule }) => !known.has(`${id} ${rule}`));
}

/** Why an edit is refused that would change what somebody has checked; null where it changes nothing of it. */
function heldAmong(model: Model, rows: readonly ElementRow[], more: readonly Change[]): string | null {
  const removed = more.flatMap(({ table, id, row }) => (table === 'element' && row === null ? [id] : []));
  const held = [...rows.filter((row) => row.held === true).map(({ id }) => id), ...removed].find(
    (id) => model.element[id]?.held === true,
  );
  if (held === undefined) return null;
  return (
    `${aThing(model.element[held].kind, true)} is held, because somebody has checked it, and ` +
    'stays as it is. Let it go at Tracing under Change first.'
  );
}

/** An edit that puts elements and whatever else; refused with the reason where it would store one broken. */
export function soundEdit(
  model: Model,
  label: string,
  given: readonly ElementRow[],
  more: readonly Change[] = [],
): Result<Edit> {
  // Of a row that two parts of an edit change the later one counts.
  const rows = [...new Map(given.map((row) => [row.id, row])).values()];
  const held = heldAmong(model, rows, more);
  if (held !== null) return fail(held);
  const gone = new Set(more.flatMap(({ table, id, row }) => (table === 'element' && row === null ? [id] : [])));
  const [refusal] = newRefusals(model, rows, gone);
  if (refusal !== undefined) return fail(refusal.message);
  const changes = [...more, ...rows.map((row) => put('element', row))];
  return changes.length === 0 ? fail('That changes nothing.') : { ok: true, value: { label, changes } };
}
