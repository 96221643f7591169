import { leastOf, mostOf } from '@/core/lists';
import type { ElementRow } from '@/core/kinds/element';
import type { Section } from '@/core/kinds/section';
import { distance, type Point } from '@/core/geometry/vector';
import { put, remove, type Change, type Edit } from './edits';
import type { Model } from './model';
import type { MadeRow } from '@/core/kinds/libraryEntry';
import type { LibraryRow, Naming, ProjectState } from './state';

export type { LibraryRow, MadeRow, Naming };

/** Sizes closer than this are one, metres. */
const sameSize = 1e-6;

export const plainNaming: Naming = {
  rectangle: '{w}x{d}',
  circle: 'D{w}',
  polygon: 'Shape {n}',
  wall: 'Wall {t}',
  slab: 'Slab {t}',
  glazing: 'Glazing {n}',
};

/**
 * What a pane is taken for where nothing is known: two panes with a coating and a gas filling, values by EN 673 (U,
 * W/(m2 K)) and EN 410 (g and light transmittance).
 */
export const plainPane = { uValue: 1.1, gValue: 0.6, transmittance: 0.8 } as const;

/** What the sizes of an element come from, without a name yet. */
type Made = MadeRow extends infer R ? (R extends MadeRow ? Omit<R, 'id' | 'name'> : never) : never;

/** What an element's size would be in the library; null for kinds that have none. */
export function madeOf(element: Pick<ElementRow, 'kind' | 'shape'>): Made | null {
  const { kind, shape } = element as ElementRow;
  switch (kind) {
    case 'column':
    case 'beam':
      return { kind: 'section', section: shape.section } as Made;
    case 'wall':
      return { kind: 'wall', thickness: shape.thickness, layers: [] };
    case 'slab':
      return { kind: 'slab', thickness: shape.thickness, layers: [] };
    case 'opening':
      return shape.use === 'window' ? { kind: 'glazing', ...plainPane } : null;
    default:
      return null;
  }
}

const near = (a: number, b: number): boolean => Math.abs(a - b) < sameSize;

/** Whether two sections are both solid, or hollow with walls of one thickness. */
const sameWalls = (a: { wall?: number }, b: { wall?: number }): boolean => near(a.wall ?? 0, b.wall ?? 0);

export function sameSection(a: Section, b: Section): boolean {
  if (a.shape === 'rectangle')
    return b.shape === 'rectangle' && near(a.width, b.width) && near(a.depth, b.depth) && sameWalls(a, b);
  if (a.shape === 'circle') return b.shape === 'circle' && near(a.diameter, b.diameter) && sameWalls(a, b);
  return (
    b.shape === 'polygon' &&
    a.outline.length === b.outline.length &&
    a.outline.every((p: Point, i) => distance(p, b.outline[i]) < sameSize)
  );
}

/** Whether an entry is of a size; panes of no known values are any glazing. */
function fits(entry: LibraryRow, made: Made): boolean {
  if (entry.kind === 'photometry') return false;
  if (entry.kind === 'section') return made.kind === 'section' && sameSection(entry.section, made.section);
  if (entry.kind === 'glazing') return made.kind === 'glazing';
  return entry.kind === made.kind && near(entry.thickness, (made as { thickness: number }).thickness);
}

/** A size in the figures of names: millimetres, or inches. */
const figure = (metres: number, imperial: boolean): string =>
  String(Number(imperial ? (metres / 0.0254).toFixed(3) : (metres * 1000).toFixed(1)));

export const patternOf = (naming: Naming, made: Made | MadeRow): string =>
  naming[made.kind === 'section' ? made.section.shape : made.kind];

/**
 * A name by a pattern: {w} width or diameter, {d} depth, {t} thickness, {n} the first free number.
 * @param taken names in use, in lower case
 */
export function nameBy(pattern: string, made: Made | MadeRow, taken: ReadonlySet<string>, imperial: boolean): string {
  let sizes: Record<string, number | undefined>;
  if (made.kind === 'section') {
    if (made.section.shape === 'rectangle') sizes = { w: made.section.width, d: made.section.depth };
    else if (made.section.shape === 'circle') sizes = { w: made.section.diameter, d: made.section.diameter };
    else sizes = polygonSizes(made.section.outline);
  } else if (made.kind === 'glazing') sizes = {};
  else sizes = { t: made.thickness };

  const plain = pattern
    .replace(/\{([wdt])\}/g, (_, key: string) => (sizes[key] === undefined ? '' : figure(sizes[key]!, imperial)))
    .trim();
  // A hollow section tells the thickness of its walls after its sides.
  const walls = made.kind === 'section' && made.section.shape !== 'polygon' ? made.section.wall : undefined;
  const filled = `${plain}${walls === undefined ? '' : `x${figure(walls, imperial)}`}` || 'Unnamed';
  for (let n = 1; ; n += 1) {
    const numbered = n === 1 ? filled : `${filled} (${n})`;
    const name = (filled.includes('{n}') ? filled.replaceAll('{n}', String(n)) : numbered).slice(0, 120);
    if (!taken.has(name.toLowerCase())) return name;
  }
}

function polygonSizes(outline: readonly Point[]): { w: number; d: number } {
  const [xs, ys] = [outline.map(([x]) => x), outline.map(([, y]) => y)];
  return { w: mostOf(xs) - leastOf(xs), d: mostOf(ys) - leastOf(ys) };
}

const isImperial = (state: ProjectState): boolean =>
  ['in', 'ft', 'ft-in'].includes(Object.values(state.project)[0]?.displayUnit ?? 'm');
const namingOf = (state: ProjectState): Naming => Object.values(state.project)[0]?.naming ?? plainNaming;

/** Finds or makes the library's entries for elements; each entry is made once. @param newId gives a fresh UUID */
export class Shelf {
  readonly changes: Change[] = [];
  private readonly entries: LibraryRow[];
  private readonly taken: Set<string>;
  /** Entries found before, by what was asked for: most elements are of few sizes. */
  private readonly found = new Map<string, string>();

  constructor(
    private readonly state: ProjectState,
    private readonly newId: () => string,
  ) {
    this.entries = Object.values(state.library);
    this.taken = new Set(this.entries.map(({ name }) => name.toLowerCase()));
  }

  /**
   * The entry that an element is made of; null for kinds that have none.
   * @param wanted the entry that it is known to be of
   */
  idFor(element: Pick<ElementRow, 'kind' | 'shape'>, wanted?: string): string | null {
    const made = madeOf(element);
    if (made === null) return null;
    const asked = `${JSON.stringify(made)} ${wanted ?? ''}`;
    const id = this.found.get(asked) ?? this.find(made, wanted);
    this.found.set(asked, id);
    return id;
  }

  private find(made: Made, wanted?: string): string {
    const known =
      this.entries.find((entry) => entry.id === wanted && fits(entry, made)) ??
      this.entries.find((entry) => fits(entry, made));
    if (known) return known.id;
    const row = {
      id: this.newId(),
      name: nameBy(patternOf(namingOf(this.state), made), made, this.taken, isImperial(this.state)),
      ...made,
    } as LibraryRow;
    this.entries.push(row);
    this.taken.add(row.name.toLowerCase());
    this.changes.push(put('library', row));
    return row.id;
  }
}

/** An element with its entry where it is of that size still; else without one. */
export function withEntryKept(state: ProjectState, element: ElementRow): ElementRow {
  const [entry, made] = [element.libraryId ? state.library[element.libraryId] : undefined, madeOf(element)];
  return entry === undefined || (made !== null && fits(entry, made)) ? element : { ...element, libraryId: null };
}

/** The elements made of an entry. */
export const usersOf = (model: Model, id: string): ElementRow[] => [...model.index.madeOf(id)];

/** An element of another size. */
function resized(element: ElementRow, entry: LibraryRow): ElementRow {
  if (entry.kind === 'section' && (element.kind === 'column' || element.kind === 'beam'))
    return { ...element, shape: { ...element.shape, section: entry.section } } as ElementRow;
  if (entry.kind === 'wall' && element.kind === 'wall')
    return { ...element, shape: { ...element.shape, thickness: entry.thickness } };
  if (entry.kind === 'slab' && element.kind === 'slab')
    return { ...element, shape: { ...element.shape, thickness: entry.thickness } };
  return element;
}

/** Puts an entry into the library or changes one; the elements made of it change with it. */
export function putEntry(state: Model, row: LibraryRow): Edit {
  const before = state.library[row.id];
  return {
    label: `${before ? 'Change' : 'Add'} ${row.name}`,
    changes: [
      put('library', row),
      ...(before ? usersOf(state, row.id).map((element) => put('element', resized(element, row))) : []),
    ],
  };
}

/**
 * Takes entries out of the library; elements made of them keep their size, layers that meant them mean nothing more
 * than their role.
 */
export function removeEntries(state: Model, rows: readonly LibraryRow[]): Edit {
  const gone = new Set(rows.map(({ id }) => id));
  return {
    label: rows.length === 1 ? `Delete ${rows[0].name}` : `Delete ${rows.length} entries of the library`,
    changes: [
      ...rows.map(({ id }) => remove('library', id)),
      ...rows.flatMap(({ id }) => usersOf(state, id)).map((element) => put('element', { ...element, libraryId: null })),
      ...Object.values(state.role)
        .filter(({ libraryId }) => libraryId !== null && gone.has(libraryId))
        .map((row) => put('role', { ...row, libraryId: null })),
    ],
  };
}

/** Gives every element of the kinds that have sizes its entry, where it has none. @param newId gives a fresh UUID */
export function shelveAll(state: ProjectState, newId: () => string): Edit {
  const shelf = new Shelf(state, newId);
  const changes = Object.values(state.element).flatMap((element): Change[] => {
    const id = element.libraryId ? null : shelf.idFor(element);
    return id === null ? [] : [put('element', { ...element, libraryId: id })];
  });
  return { label: 'Collect sizes in the library', changes: [...shelf.changes, ...changes] };
}

/** Names all entries by the patterns anew. */
export function renameAll(state: ProjectState, naming: Naming): Edit {
  const taken = new Set<string>();
  const changes = Object.values(state.library)
    .sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }))
    .flatMap((row): Change[] => {
      if (row.kind === 'photometry') return [];
      const name = nameBy(patternOf(naming, row), row, taken, isImperial(state));
      taken.add(name.toLowerCase());
      return name === row.name ? [] : [put('library', { ...row, name })];
    });
  return { label: 'Name the library by its patterns', changes };
}

/**
 * Thermal transmittance of a construction of plane layers, W/(m2 K), by ISO 6946:2017, 6.7.1: one over the sum of the
 * layers' resistances and the surface
 * resistances of table 7 (walls 0.13 and 0.04 for horizontal heat flow, slabs 0.10 and 0.04 for upward). Null where a
 * layer's conductivity is not known.
 */
export function uValueOf(entry: LibraryRow): number | null {
  if (entry.kind === 'section' || entry.kind === 'photometry') return null;
  if (entry.kind === 'glazing') return entry.uValue;
  if (entry.layers.length === 0 || entry.layers.some(({ conductivity }) => conductivity === null)) return null;
  const inside = entry.kind === 'wall' ? 0.13 : 0.1;
  return (
    1 / (inside + 0.04 + entry.layers.reduce((sum, { thickness, conductivity }) => sum + thickness / conductivity!, 0))
  );
}
