import type { ReadModel } from '@/core/handover/model/readModel';
import { usualMaterials } from '@/core/kinds/material';
import type { Report } from '@/core/proof/report';
import type { Enclosed, Surface } from './derive/surface';
import { basementWallUValue, groundFloorUValue, type GroundFloor } from './ground';
import { flowOf, layerSteps, uValueOfLayers, type Layer } from './uValue';

/** Windows and doors of no known construction, W/(m2 K): as of double glazing with a coating, of an insulated leaf. */
const plainUValues = { window: 1.3, door: 1.8 } as const;
/** U-values out of the usual, W/(m2 K). */
const usualUValue = [0.05, 6] as const;

/** U-values of surfaces, each worked out once, with what had to be taken for granted. */
export class UValues {
  private readonly constructions: Map<string, NonNullable<ReadModel['constructions']>[number]>;
  private readonly materials: Map<string, number>;
  private readonly floor: GroundFloor;
  private readonly without = new Set<string>();

  constructor(
    model: ReadModel,
    /** What the ground conducts, W/(m K). */
    private readonly ground: number,
    enclosed: readonly Enclosed[],
    private readonly report: Report,
  ) {
    this.constructions = new Map((model.constructions ?? []).map((one) => [one.id, one]));
    const said = (model.materials ?? []).flatMap(({ id, conductivity }) =>
      conductivity === undefined ? [] : [[id, conductivity] as const],
    );
    this.materials = new Map([...usualMaterials.map(({ id, conductivity }) => [id, conductivity] as const), ...said]);
    this.floor = this.groundFloor(enclosed);
  }

  /** All that lies on the ground as one floor: its area, its edge to outside, its thickest walls, its layers. */
  private groundFloor(enclosed: readonly Enclosed[]): GroundFloor {
    let [area, perimeter, wall, weighed, depth] = [0, 0, 0, 0, 0];
    for (const { room, surfaces } of enclosed) {
      const floors = surfaces.filter(({ kind, beyond }) => kind === 'floor' && beyond === 'ground');
      if (floors.length === 0) continue;
      for (const floor of floors) {
        area += floor.area;
        weighed += floor.area * this.resistanceOf(floor);
        depth += floor.area * floor.depth;
      }
      const lowest = surfaces.filter(({ kind, edge, at }) => kind === 'wall' && edge > 0 && at[2] > room.low);
      const feet = lowest.filter(
        (one) => one.beyond === 'ground' || !lowest.some((other) => other.beyond === 'ground' && sameEdge(one, other)),
      );
      for (const { edge, thickness } of feet) [perimeter, wall] = [perimeter + edge, Math.max(wall, thickness)];
    }
    return {
      area,
      perimeter,
      depth: area > 0 ? depth / area : 0,
      wall,
      resistance: area > 0 ? weighed / area : 0,
      conductivity: this.ground,
    };
  }

  of(surface: Surface): number {
    const { kind, elements, beyond, depth } = surface;
    if (elements.length === 0 && kind === 'wall') return 0;
    if (kind === 'window' || kind === 'door') return this.ofOpening(surface, kind);
    if (beyond === 'ground')
      return kind === 'floor'
        ? groundFloorUValue(this.floor)
        : basementWallUValue(Math.max(depth, 0.01), this.resistanceOf(surface), this.floor);
    const construction = this.constructions.get(surface.construction ?? '');
    const place = beyond === 'outside' || beyond === 'neighbour' ? 'outside' : 'inside';
    const layers = this.layersOf(surface);
    const made = uValueOfLayers(layers, flowOf(surface.tilt), place);
    if (made !== null) return this.usual(made.value, surface);
    if (construction !== undefined && construction.uValue !== null) return this.usual(construction.uValue, surface);
    return 0;
  }

  private ofOpening(surface: Surface, kind: 'window' | 'door'): number {
    const construction = this.constructions.get(surface.construction ?? '');
    if (construction !== undefined && construction.uValue !== null) return this.usual(construction.uValue, surface);
    this.report.assumeOfEach(`A ${kind} without a construction has U ${plainUValues[kind]} W/(m2 K)`);
    return plainUValues[kind];
  }

  /** The layers of a surface: of its construction, else all of its thickness of what it is made of. */
  private layersOf(surface: Surface): Layer[] {
    const construction = this.constructions.get(surface.construction ?? '');
    if (construction !== undefined && construction.kind !== 'glazing' && construction.layers.length > 0) {
      if (layerSteps(construction.layers, flowOf(surface.tilt)) !== null) return construction.layers;
      if (construction.uValue !== null) return [];
      this.tell(surface, `Layers of the construction ${construction.name} say no conductivity`);
    } else if (construction === undefined || construction.uValue === null) this.tell(surface, 'It has no construction');
    else return [];
    const stands = surface.kind === 'wall';
    const plainId = stands ? 'brick' : 'C30/37';
    const conductivity = this.materials.get(surface.material ?? plainId) ?? this.materials.get(plainId)!;
    const thickness = surface.thickness > 0 ? surface.thickness : plainThickness;
    return [{ name: surface.material ?? plainId, thickness, conductivity }];
  }

  private resistanceOf = (surface: Surface): number =>
    (layerSteps(this.layersOf(surface), flowOf(surface.tilt)) ?? []).reduce(
      (sum, { resistance }) => sum + resistance,
      0,
    );

  /** Tells once of each element that something had to be taken for its layers. */
  private tell({ elements, kind, at, beyond }: Surface, why: string): void {
    const [element = `${kind} without an element`] = elements;
    if (this.without.has(element)) return;
    this.without.add(element);
    this.report.assumeOfEach(`A ${kind} whose layers are not known is bare brickwork or concrete, as thick as it is`);
    if (typeof beyond === 'string')
      this.report.find('no construction', 'warning', elements.slice(0, 1), at, [
        `${elements.length === 0 ? 'No slab is drawn there' : why}: this ${kind} is taken as bare brickwork or concrete.`,
        elements.length === 0
          ? 'Draw the slab at Tracing, and give it a construction.'
          : 'Give it a construction at Proof, Heat, or at Reading, Library.',
      ]);
  }

  private usual(value: number, { kind, elements, at }: Surface): number {
    if (value < usualUValue[0] || value > usualUValue[1])
      this.report.find('U-value', 'warning', elements.slice(0, 1), at, [
        `The U-value of this ${kind} is ${value.toFixed(3)} W/(m2 K); ${usualUValue[0]} to ${usualUValue[1]} was expected.`,
        'Look at the layers of its construction: thicknesses are metres.',
      ]);
    return value;
  }
}
/** A floor or a roof that no slab is drawn of, metres. */
const plainThickness = 0.2;

const sameEdge = (one: Surface, other: Surface): boolean =>
  Math.hypot(one.at[0] - other.at[0], one.at[1] - other.at[1]) < 1e-6;
