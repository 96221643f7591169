import { elementOf } from '@/core/resolved/elementOf';
import { boxOf, type Box } from '@/core/geometry/boxIndex';
import { writeModel } from '@/core/handover/model/writeModel';
import type { ElementKind, ElementRow } from '@/core/kinds/element';
import { kinds, pointsOf } from '@/core/kinds/kinds';
import type { Diff, Model } from '@/core/model/model';
import { resolveBuilding } from '@/core/resolved/resolve';
import { inOrder, type Finding } from './finding';
import { findBy, rules } from './prove';

/** No rule of what lies near looks further than this, metres. */
const reach = 1;
/** After an edit of more elements than this share of all it is quicker to ask everything again. */
const anewFrom = 1 / 20;

const nearRules = rules.filter(({ near }) => near);
const wholeRules = rules.filter(({ near }) => !near);

/**
 * The findings of a model that is edited. Rules of what lies near are asked again only about what lies near a change;
 * those that look at the whole model wait until they are asked for.
 */
export class KeptFindings {
  /** What rules of what lies near found; null where they have to be asked about everything. */
  private near: Finding[] | null = null;
  private whole: Finding[] = [];
  private wholeStale = true;
  /** What changed since, by the id: the rows before and after. */
  private readonly changed = new Map<string, ElementRow[]>();

  constructor(private readonly model: Model) {
    model.subscribe((diff) => this.follow(diff));
  }

  private follow({ rows }: Diff): void {
    this.wholeStale = true;
    for (const row of rows) {
      // Heights hang on levels: everything may have changed.
      if (row.table === 'level') this.near = null;
      if (row.table !== 'element') continue;
      const seen = this.changed.get(row.id) ?? [];
      this.changed.set(row.id, [...seen, ...[row.before, row.after].filter((one) => one !== null)]);
    }
  }

  /** Findings with those of what lies near up to date; the others may be of the model before. */
  soon(): Finding[] {
    if (this.near === null || this.changed.size > anewFrom * this.model.count('element')) this.near = this.askAll();
    else if (this.changed.size > 0) this.near = this.askAbout(this.near);
    this.changed.clear();
    return inOrder([...this.near, ...this.whole]);
  }

  /** Findings, all up to date. */
  all(): Finding[] {
    this.soon();
    if (this.wholeStale) this.whole = findBy(wholeRules, this.written(Object.values(this.model.element)));
    this.wholeStale = false;
    return this.soon();
  }

  private askAll = (): Finding[] => findBy(nearRules, this.written(Object.values(this.model.element)));

  private written(elements: readonly ElementRow[]) {
    const building = resolveBuilding({ levels: Object.values(this.model.level), elements, unbounded: true });
    return writeModel({ building, drawingName: (id) => id });
  }

  /** Asks about what lies near the changes, and keeps what was found elsewhere. */
  private askAbout(before: readonly Finding[]): Finding[] {
    const rows = [...this.changed.values()].flat();
    const concerned = this.concernedBy(rows);
    for (const id of this.changed.keys()) concerned.add(id);
    const about = new Set<ElementRow>();
    for (const id of concerned) {
      const row = this.model.element[id];
      if (row === undefined) continue;
      about.add(row);
      const box = this.boxAbout(row);
      if (box !== null) for (const near of this.touching(box)) about.add(near);
    }
    const found = findBy(nearRules, this.written([...this.withHosts(about)]));
    const isConcerned = ({ elements }: Finding): boolean => elements.some((id) => concerned.has(elementOf(id)));
    return [...before.filter((finding) => !isConcerned(finding)), ...found.filter(isConcerned)];
  }

  /** The elements whose findings a change may make others: those near it, and areas only of a kind that changed. */
  private concernedBy(rows: readonly ElementRow[]): Set<string> {
    const changedKinds = new Set(rows.map(({ kind }) => kind));
    const concerned = new Set<string>();
    for (const row of rows) {
      const box = this.boxAbout(row);
      if (box === null) continue;
      for (const near of this.touching(box))
        if (!isWide(near.kind) || changedKinds.has(near.kind)) concerned.add(near.id);
    }
    return concerned;
  }

  private boxAbout(row: ElementRow): Box | null {
    const points = pointsOf(row, this.model.index.hostOf(row));
    return points.length === 0 ? null : boxOf(points, reach);
  }

  private touching(box: Box): ElementRow[] {
    const levels = [...Object.keys(this.model.level), null];
    return levels.flatMap((level) => this.model.index.touching(level, box));
  }

  /** Elements with the walls of their openings, and all openings of those walls. */
  private withHosts(rows: ReadonlySet<ElementRow>): Set<ElementRow> {
    const all = new Set(rows);
    for (const row of rows) {
      if (row.kind !== 'opening') continue;
      const host = this.model.element[row.shape.wall];
      if (host !== undefined) all.add(host);
    }
    for (const row of [...all])
      if (row.kind === 'wall') for (const opening of this.model.index.openingsOf(row.id)) all.add(opening);
    return all;
  }
}

/** Areas reach over whole storeys: what lies in them does not concern them. */
const isWide = (kind: ElementKind): boolean =>
  kind === 'grid' || (kinds[kind].style.area && kinds[kind].standsBack >= wideFrom);
/** Kinds that stand back so far, in pixels, are areas with other things in them. */
const wideFrom = 10;
