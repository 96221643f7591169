import { groupBy } from '@/core/groupBy';
import { leastOf } from '@/core/lists';
import type { ReadModel } from '@/core/handover/model/readModel';
import type { CaseLoads } from '../frame';
import { times, zero, type V3 } from '../vector3';
import type { Carriers } from './carriers';
import { partsOf, restingOf, type LyingSlab, type Resting } from './floors';
import type { LinesDown } from './linesDown';
import { gravity, type Materials } from './materials';
import type { Report } from '@/core/proof/report';
import type { Skeleton } from './skeleton';

type Load = NonNullable<ReadModel['loads']>[number];
type LoadOf<K extends Load['kind']> = Extract<Load, { kind: K }>;

/** A case as it is said. */
export interface LoadCase {
  id: string;
  name: string;
  selfWeight: number;
}

const permanent: LoadCase = { id: 'G', name: 'Permanent', selfWeight: 1 };

/** The cases of a model: those it says, and those that its loads name. */
export function casesOf(model: ReadModel, report: Report): LoadCase[] {
  const said = (model.loadCases ?? []).map(({ id, name, selfWeight }): LoadCase => ({
    id,
    name: name ?? id,
    selfWeight: selfWeight ?? 0,
  }));
  if (said.length === 0) report.assume('No load case is said: case G holds the weight of the structure itself');
  const cases = said.length === 0 ? [permanent] : said;
  for (const load of model.loads ?? []) {
    const id = load.case ?? cases[0].id;
    if (cases.some((one) => one.id === id)) continue;
    if (said.length > 0) report.assume(`Loads name a case "${id}" that is not said: it holds them, without any weight`);
    cases.push({ id, name: id, selfWeight: 0 });
  }
  return cases;
}

/** Metres within which a level's floor and a slab's top are one. */
const sameFloor = 0.5;

/** Puts the loads of a model onto the members of its frame, case by case. */
export class Loading {
  private readonly openings: Map<string, ReadModel['openings']>;
  private readonly axisOf: Map<string, number>;
  /** Of the lowest end, metres. */
  private readonly lowest: number;
  private readonly resting = new Map<LyingSlab, Resting>();
  /** What nothing takes, by the case and the words, in newtons. */
  private readonly lost = new Map<string, { id: string; newtons: number; at: V3; elements: string[]; what: string }>();

  constructor(
    private readonly model: ReadModel,
    private readonly skeleton: Skeleton,
    private readonly carriers: Carriers,
    private readonly down: LinesDown,
    private readonly slabs: readonly LyingSlab[],
    private readonly materials: Materials,
    private readonly report: Report,
  ) {
    this.openings = groupBy(model.openings, ({ wall }) => wall);
    this.lowest = leastOf(skeleton.axes.flatMap(({ start, end }) => [start[2], end[2]]));
    this.axisOf = new Map(skeleton.axes.map(({ element }, i) => [element, i]));
  }

  caseLoads({ id, selfWeight }: LoadCase, first: boolean): CaseLoads {
    const into: CaseLoads = { id, spread: [], places: [], nodes: [] };
    if (selfWeight !== 0) this.weigh(into, selfWeight);
    for (const load of this.model.loads ?? []) if ((load.case ?? (first ? id : null)) === id) this.add(into, load);
    return into;
  }

  /** Where what rests on a slab goes; worked out once. */
  private restingOn(slab: LyingSlab): Resting {
    const before = this.resting.get(slab);
    if (before !== undefined) return before;
    const made = restingOf(slab, slab.span, this.carriers, slab.groundFloor);
    this.resting.set(slab, made);
    return made;
  }

  /** The weight of members, slabs and walls. */
  private weigh(into: CaseLoads, factor: number): void {
    this.skeleton.axes.forEach(({ mass }, i) => {
      const q: V3 = [0, 0, -mass * gravity * factor];
      for (const { member, from, to } of this.skeleton.pieces[i])
        into.spread.push({ member, from: 0, to: to - from, force: [q, q], moment: [zero, zero] });
    });
    for (const slab of this.slabs)
      this.addResting(into, slab, slab.mass * gravity * factor, [slab.id], 'the weight of a slab');
    for (const wall of this.model.walls) if (!this.materials.carries(wall)) this.weighWall(into, wall, factor);
  }

  private addResting(into: CaseLoads, slab: LyingSlab, q: number, elements: string[], what: string): void {
    if (slab.ground) {
      this.report.assume('Slabs on the lowest floor lie on the ground, and pass nothing on to the structure');
      return;
    }
    this.addUnit(into, this.restingOn(slab), q, slab.groundFloor ? null : { elements, what });
  }

  /** @param lost how what nothing carries is told; null where it lies on the ground */
  private addUnit(
    into: CaseLoads,
    resting: Resting,
    q: number,
    lost: { elements: string[]; what: string } | null,
  ): void {
    for (const load of resting.loads.spread)
      into.spread.push({
        ...load,
        force: [times(load.force[0], q), times(load.force[1], q)],
        moment: [times(load.moment[0], q), times(load.moment[1], q)],
      });
    for (const load of resting.loads.places)
      into.places.push({ ...load, force: times(load.force, q), moment: times(load.moment, q) });
    if (resting.lost <= 0) return;
    if (lost === null) this.report.assume('The ground floor lies on the ground where nothing is beneath it');
    else this.lose(into.id, resting.lost * q, resting.lostAt, lost.elements, lost.what);
  }

  /** A wall that carries nothing weighs on what lies beneath it. */
  private weighWall(into: CaseLoads, wall: ReadModel['walls'][number], factor: number): void {
    const level = this.model.levels.find(({ id }) => id === wall.level);
    const base = wall.base ?? level?.elevation ?? 0;
    const [[x1, y1], [x2, y2]] = [wall.start, wall.end];
    const length = Math.hypot(x2 - x1, y2 - y1);
    if (length === 0 || this.onGround(base)) return;
    const open = (this.openings.get(wall.id) ?? []).reduce((sum, { width, height }) => sum + width * height, 0);
    const height = Math.max(0, wall.height - open / length);
    const q: V3 = [0, 0, -massOfWall(this.model, wall, this.materials) * height * gravity * factor];
    const lost = this.down.line(into, [x1, y1, base], [x2, y2, base], q);
    if (lost > 0) this.lose(into.id, -q[2] * lost, [x1, y1, base], [wall.id], 'the weight of a wall');
  }

  private onGround(z: number): boolean {
    return this.slabs.some((slab) => slab.ground && Math.abs(slab.z - z) < sameFloor) || z <= this.lowest + sameFloor;
  }

  private add(into: CaseLoads, load: Load): void {
    const elements = load.id === undefined || load.id === '' ? [] : [load.id];
    if (load.kind === 'point') {
      const force = load.force ?? zero;
      if (!this.down.point(into, load.position, force, load.moment ?? zero))
        this.lose(into.id, Math.hypot(...force), load.position, elements, 'a point load');
    } else if (load.kind === 'line') {
      const lost = this.down.line(into, load.start, load.end, load.q);
      if (lost > 0) this.lose(into.id, Math.hypot(...load.q) * lost, load.start, elements, 'a line load');
    } else if (load.kind === 'member') this.addMember(into, load, elements);
    else this.addArea(into, load, elements);
  }

  private addMember(into: CaseLoads, { element, q }: LoadOf<'member'>, elements: string[]): void {
    const i = this.axisOf.get(element);
    if (i === undefined) {
      this.report.find(
        'load path',
        'error',
        [...elements, element],
        [0, 0, 0],
        [
          `A load of case ${into.id} lies on "${element}", which is no member of the trial.`,
          'Name a column, a beam or a wall that carries, or delete the load.',
        ],
      );
      return;
    }
    for (const { member, from, to } of this.skeleton.pieces[i])
      into.spread.push({ member, from: 0, to: to - from, force: [q, q], moment: [zero, zero] });
  }

  private addArea(into: CaseLoads, load: LoadOf<'area'>, elements: string[]): void {
    // A load is negative downwards.
    const q = -load.q;
    if (load.slab !== undefined) {
      const slab = this.slabs.find(({ id }) => id === load.slab);
      if (slab === undefined)
        this.report.find(
          'load path',
          'error',
          [...elements, load.slab],
          [0, 0, 0],
          [
            `An area load of case ${into.id} lies on slab "${load.slab}", which the model has not got.`,
            'Name a slab that is there, or delete the load.',
          ],
        );
      else this.addResting(into, slab, q, [...elements, slab.id], 'an area load');
      return;
    }
    if (load.outline === undefined || load.outline.length < 3) return;
    const level = this.model.levels.find(({ id }) => id === load.level);
    const z = level?.elevation ?? 0;
    const near = this.slabs.filter((slab) => Math.abs(slab.z - z) < sameFloor);
    for (const { region, slab } of partsOf(load.outline, load.holes ?? [], near))
      for (const { outline, holes } of region) {
        if (slab?.ground) {
          this.report.assume('Slabs on the lowest floor lie on the ground, and pass nothing on to the structure');
          continue;
        }
        const floor = { outline, holes, z: slab?.z ?? z, thickness: slab?.thickness ?? 0 };
        const lost = slab?.groundFloor ? null : { elements, what: 'an area load' };
        this.addUnit(into, restingOf(floor, slab?.span ?? null, this.carriers, slab?.groundFloor ?? false), q, lost);
      }
  }

  private lose(id: string, newtons: number, at: V3, elements: string[], what: string): void {
    const key = `${id}/${what}/${elements.join()}`;
    const before = this.lost.get(key);
    this.lost.set(key, {
      id,
      newtons: (before?.newtons ?? 0) + Math.abs(newtons),
      at: before?.at ?? at,
      elements,
      what,
    });
  }

  /** Tells what nothing took. */
  tellLost(): void {
    for (const { id, newtons, at, elements, what } of this.lost.values())
      this.report.find('load path', 'error', elements, at, [
        `${(newtons / 1000).toFixed(2)} kN of ${what} in case ${id} find no member to take them.`,
        'Draw what carries it, move the load onto what does, or delete it.',
      ]);
  }
}

type Wall = ReadModel['walls'][number];

/** Kilograms per square metre of a wall's face: by the layers of its construction, else by its material. */
function massOfWall(model: ReadModel, wall: Wall, materials: Materials): number {
  return (
    massOfLayers(model, wall.construction) ??
    materials.of('walls that carry nothing', wall.material, false).density * wall.thickness
  );
}

/** Kilograms per square metre of a construction of which every layer says its density; null of another. */
export function massOfLayers(model: ReadModel, construction: string | undefined): number | null {
  const row = (model.constructions ?? []).find(({ id }) => id === construction);
  if (row === undefined || row.kind === 'glazing' || row.layers.length === 0) return null;
  let sum = 0;
  for (const { density, thickness } of row.layers) {
    if (density === undefined) return null;
    sum += density * thickness;
  }
  return sum;
}
