import { radians } from '@/core/geometry/vector';

/** The way that heat goes through a surface: across a wall, up through a roof, down through a floor. */
export type Flow = 'across' | 'up' | 'down';

/** Surface resistances inside and outside, m2 K/W (ISO 6946 table 7). */
export const insideResistance: Record<Flow, number> = { across: 0.13, up: 0.1, down: 0.17 };
export const outsideResistance = 0.04;

/** Resistances of unventilated air layers by their thickness, metres and m2 K/W (ISO 6946 table 8). */
const airLayers: readonly (readonly [thickness: number, across: number, up: number, down: number])[] = [
  [0, 0, 0, 0],
  [0.005, 0.11, 0.11, 0.11],
  [0.007, 0.13, 0.13, 0.13],
  [0.01, 0.15, 0.15, 0.15],
  [0.015, 0.17, 0.16, 0.17],
  [0.025, 0.18, 0.16, 0.19],
  [0.05, 0.18, 0.16, 0.21],
  [0.1, 0.18, 0.16, 0.22],
  [0.3, 0.18, 0.16, 0.23],
];
const places: Record<Flow, 1 | 2 | 3> = { across: 1, up: 2, down: 3 };

/** The resistance of an air layer, between the thicknesses of the table by a straight line. */
export function airResistance(thickness: number, flow: Flow): number {
  const place = places[flow];
  const after = airLayers.findIndex(([known]) => known >= thickness);
  if (after < 0) return airLayers[airLayers.length - 1][place];
  if (after === 0) return 0;
  const [low, high] = [airLayers[after - 1], airLayers[after]];
  const share = (thickness - low[0]) / (high[0] - low[0]);
  return low[place] + share * (high[place] - low[place]);
}

/** A layer as model.json has it, from outside to inside. */
export interface Layer {
  name: string;
  thickness: number;
  conductivity: number | null;
}

/** A step of a U-value: what it is, and its resistance, m2 K/W. */
export interface ResistanceStep {
  name: string;
  resistance: number;
}

export interface UValue {
  /** W/(m2 K). */
  value: number;
  steps: ResistanceStep[];
}

/** Layers of air are called so. */
const isAir = ({ name }: Layer): boolean => /\b(air|cavity|void)\b/i.test(name);

/** The resistances of layers alone; null where one says no conductivity and is no air. */
export function layerSteps(layers: readonly Layer[], flow: Flow): ResistanceStep[] | null {
  const steps = layers.map((layer): ResistanceStep | null => {
    if (layer.conductivity !== null && layer.conductivity > 0)
      return { name: layer.name, resistance: layer.thickness / layer.conductivity };
    return isAir(layer) ? { name: layer.name, resistance: airResistance(layer.thickness, flow) } : null;
  });
  return steps.every((step) => step !== null) ? steps : null;
}

/**
 * The U-value of layers by ISO 6946, with its steps.
 * @param beyond what lies on the other side: air outside, air of a room, or ground, which has no resistance of its own
 */
export function uValueOfLayers(
  layers: readonly Layer[],
  flow: Flow,
  beyond: 'outside' | 'inside' | 'ground',
): UValue | null {
  const own = layerSteps(layers, flow);
  if (own === null || own.length === 0) return null;
  const other = { outside: outsideResistance, inside: insideResistance[flow], ground: 0 }[beyond];
  const steps = [
    { name: beyond === 'inside' ? 'surface beyond' : 'surface outside', resistance: other },
    ...own,
    { name: 'surface inside', resistance: insideResistance[flow] },
  ];
  return { value: 1 / steps.reduce((sum, { resistance }) => sum + resistance, 0), steps };
}

/** The way that heat goes through a surface by its tilt: 0 looks up, 90 stands, 180 looks down. */
export function flowOf(tilt: number): Flow {
  // Within 30 degrees of level it counts as level (ISO 6946, 6.8).
  const up = Math.cos(radians(tilt));
  if (Math.abs(up) < Math.cos(radians(60))) return 'across';
  return up > 0 ? 'up' : 'down';
}
