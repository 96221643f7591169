import * as v from 'valibot';
import { marksOf } from '@/core/cut/axes';
import type { Shell } from '@/core/cut/body';
import type { BuildingReport } from '@/core/handover/intake/buildingReport';
import { Plans } from '@/core/cut/plan';
import { planStoreys, topHeight, type PlanStorey, type Storey } from '@/core/cut/storeys';
import { planDxf } from '@/core/cut/writePlan';
import { few } from '@/core/few';
import { fail, ok, type Result } from '@/core/result';
import { Counts } from './counts';
import { Swings } from './doors';
import { gridAxesOf } from './gridAxes';
import { IfcFile, reference, text } from './ifcFile';
import { kindOf } from './kinds';
import { unitsOf, type FileUnits } from './units';

/** A storey's plan as a drawing. */
export interface StoreyPlan {
  name: string;
  elevation: number;
  height: number;
  dxf: string;
}

/** What was made of a file of a building. */
export interface ReadBuilding {
  plans: StoreyPlan[];
  report: BuildingReport;
}

/**
 * Cuts a plan through each storey of an IFC file, with its grid on each.
 * @param progress told how many of how many shapes were drawn
 * @returns plans and what was drawn on none; a sentence where the file holds no storey, or cannot be read
 */
export async function readBuilding(
  bytes: Uint8Array,
  progress: (done: number, of: number) => void = () => undefined,
): Promise<Result<ReadBuilding>> {
  if (!endsWell(bytes))
    return fail(`The IFC is cut short: it does not end with ${lastLine}. Copy it again, and bring it in anew.`);
  let file: IfcFile;
  try {
    file = await IfcFile.open(bytes);
  } catch (error) {
    return fail(`The IFC cannot be read: ${(error as Error).message}. Ask for it anew, as IFC4 or IFC2X3.`);
  }
  try {
    return new Reading(file, progress).result();
  } finally {
    file.close();
  }
}

/** What every file of ISO 10303-21 ends with; some programs put blanks and zeros after it. */
const lastLine = 'END-ISO-10303-21';
const tail = 1024;
const endsWell = (bytes: Uint8Array): boolean =>
  Buffer.from(bytes.subarray(-tail)).toString('latin1').includes(lastLine);

const storeyLine = v.object({ Name: v.nullish(text), ObjectPlacement: v.nullish(reference) });
const contents = v.object({ RelatedElements: v.array(reference), RelatingStructure: reference });
const parts = v.object({ RelatingObject: reference, RelatedObjects: v.array(reference) });
const fills = v.object({ RelatingOpeningElement: reference, RelatedBuildingElement: reference });
const room = v.object({ Name: v.nullish(text), LongName: v.nullish(text) });

class Reading {
  private readonly units: FileUnits;
  private readonly counts = new Counts();
  private readonly warnings: string[] = [];

  constructor(
    private readonly file: IfcFile,
    private readonly progress: (done: number, of: number) => void,
  ) {
    this.units = unitsOf(file);
  }

  result(): Result<ReadBuilding> {
    const storeys = this.storeys();
    if (storeys.length === 0)
      return fail(
        'The IFC holds no storey, so that no plan can be cut. Ask for it with its storeys (IfcBuildingStorey).',
      );
    const plans = new Plans(this.planStoreys(storeys));
    this.drawGrid(plans);
    this.drawRooms(plans);
    this.drawBodies(plans);
    this.tellAnalysis();
    this.tellPlace();
    const top = plans.plans[plans.plans.length - 1].storey;
    return ok({
      plans: plans.plans.map(({ storey, marks }) => ({
        name: storey.name,
        elevation: storey.elevation,
        height: storey === top ? topHeight(top, plans.highest) : storey.height,
        dxf: planDxf(marks),
      })),
      report: {
        schema: this.file.schema(),
        storeys: plans.plans.map(({ storey: { name, elevation, cut } }) => ({ name, elevation, cut })),
        ...this.counts.told(),
        warnings: this.warnings,
      },
    });
  }

  private storeys(): Storey[] {
    const { file, units } = this;
    const things = new Map<number, number>();
    for (const id of file.idsOf(file.names.IFCRELCONTAINEDINSPATIALSTRUCTURE)) {
      const held = file.line(id, contents);
      if (held === null) continue;
      const { value } = held.RelatingStructure;
      things.set(value, (things.get(value) ?? 0) + held.RelatedElements.length);
    }
    return file.idsOf(file.names.IFCBUILDINGSTOREY).map((id, i) => {
      const line = file.line(id, storeyLine);
      const place = line?.ObjectPlacement ? file.placeOf(line.ObjectPlacement.value) : null;
      return {
        name: line?.Name?.value.trim() || `Storey ${i + 1}`,
        elevation: Number(((place?.[14] ?? 0) * units.length).toFixed(6)),
        things: things.get(id) ?? 0,
      };
    });
  }

  private planStoreys(storeys: readonly Storey[]): PlanStorey[] {
    return planStoreys(storeys, ({ name, elevation }, to) =>
      this.warnings.push(
        `Storey ${name} at ${elevation.toFixed(3)} m has no plan of its own: it is one floor with ${to.name} at ` +
          `${to.elevation.toFixed(3)} m.`,
      ),
    );
  }

  private drawGrid(plans: Plans): void {
    const untold: string[] = [];
    const axes = gridAxesOf(this.file, this.units, (label) => untold.push(label));
    for (const axis of axes) this.counts.add('GRID LINE', plans.mark(marksOf(axis)));
    for (const _ of untold)
      this.counts.leave('GRID LINE', 'is a curve of another kind than lines and arcs', 'Draw it by hand.');
    if (untold.length > 0) this.warnings.push(`Grid lines that were not read: ${few(untold)}.`);
  }

  private drawRooms(plans: Plans): void {
    const { file } = this;
    file.eachOf([file.names.IFCSPACE], ({ id, shells }) => {
      const line = file.line(id, room);
      const texts = [line?.Name?.value, line?.LongName?.value].filter(
        (one): one is string => (one ?? '').trim() !== '',
      );
      this.counts.add('ROOM', plans.addRoom(shells, [...new Set(texts)]));
    });
  }

  private drawBodies(plans: Plans): void {
    const { file, counts } = this;
    const all = file.idsOf(file.names.IFCELEMENT, true).filter((id) => !this.isOpening(id));
    const done = this.drawFillings(plans);
    const signed = new Set(done);
    file.eachMesh(({ id, shells }) => {
      const name = file.classOf(id);
      if (signed.has(id) || /^IfcStructural/.test(name)) return;
      done.add(id);
      this.progress(done.size, all.length);
      counts.add(kindOf(name), plans.add({ kind: kindOf(name), shells }));
    });
    const wholes = this.wholes();
    const shapeless = all.filter((id) => !done.has(id) && !wholes.has(id));
    for (const id of shapeless)
      counts.leave(kindOf(file.classOf(id)), 'has no shape in the file', 'Ask for it with shapes, or draw it.');
  }

  /** Doors and windows as signs in the openings that they fill. @returns those that are on a plan so */
  private drawFillings(plans: Plans): Set<number> {
    const swings = new Swings(this.file, this.units);
    const drawn = new Set<number>();
    for (const [id, opening] of this.openingsByFilling()) {
      const kind = kindOf(this.file.classOf(id));
      if (kind !== 'DOOR' && kind !== 'WINDOW') continue;
      const on = plans.addFilling({ kind, opening, swing: kind === 'DOOR' ? swings.of(id) : null });
      if (on === 0) continue;
      this.counts.add(kind, on);
      drawn.add(id);
    }
    return drawn;
  }

  /** What has parts that are drawn in its place. */
  private wholes(): Set<number> {
    const { file } = this;
    return new Set(
      file.idsOf(file.names.IFCRELAGGREGATES).flatMap((id) => file.line(id, parts)?.RelatingObject.value ?? []),
    );
  }

  private isOpening = (id: number): boolean => /^IfcOpening/.test(this.file.classOf(id));

  /** The shells of the openings that doors and windows fill, by these. */
  private openingsByFilling(): Map<number, Shell[]> {
    const { file } = this;
    const shells = new Map<number, Shell[]>();
    file.eachOf([file.names.IFCOPENINGELEMENT], (mesh) => shells.set(mesh.id, mesh.shells));
    const found = new Map<number, Shell[]>();
    for (const id of file.idsOf(file.names.IFCRELFILLSELEMENT)) {
      const line = file.line(id, fills);
      const opening = line === null ? undefined : shells.get(line.RelatingOpeningElement.value);
      if (line !== null && opening !== undefined) found.set(line.RelatedBuildingElement.value, opening);
    }
    return found;
  }

  /** Members, supports and loads of an analysis are no part of plans. */
  private tellAnalysis(): void {
    const { file } = this;
    const { IFCSTRUCTURALITEM, IFCSTRUCTURALACTIVITY } = file.names;
    const count = file.idsOf(IFCSTRUCTURALITEM, true).length + file.idsOf(IFCSTRUCTURALACTIVITY, true).length;
    if (count > 0)
      this.warnings.push(
        `The file also holds an analysis model of ${count.toLocaleString('en')} parts; plans have no use for it.`,
      );
  }

  /** Where the file lies on the earth is said, not applied: plans stay in its own coordinates. */
  private tellPlace(): void {
    const { file } = this;
    if (file.idsOf(file.names.IFCMAPCONVERSION).length > 0)
      this.warnings.push(
        'The file says where it lies in a survey; plans are in its own coordinates. Set the survey at Datum.',
      );
  }
}
