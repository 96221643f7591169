import type { LibraryRow } from './state';
import type { SurfaceRole } from './siteSettings';

/** An entry of the library before it has an id. */
type Plain = LibraryRow extends infer R ? (R extends LibraryRow ? Omit<R, 'id'> : never) : never;

const layer = (name: string, thickness: number, conductivity: number, density: number, heatCapacity: number) => ({
  name,
  thickness,
  conductivity,
  density,
  heatCapacity,
});

/** Layers with the values of EN ISO 10456 table 3, from outside to inside: W/(m K), kg/m3, J/(kg K). */
const render = layer('Render', 0.015, 1, 1800, 1000);
const wool = (thickness: number) => layer('Mineral wool', thickness, 0.035, 60, 1030);
const foam = (thickness: number) => layer('Foam board', thickness, 0.035, 30, 1450);
const bricks = (thickness: number) => layer('Bricks', thickness, 0.81, 1800, 1000);
const concrete = (thickness: number) => layer('Concrete', thickness, 2.3, 2400, 1000);
const plaster = layer('Plaster', 0.015, 0.57, 1200, 1000);
const screed = layer('Screed', 0.06, 1.4, 2000, 1000);
const board = layer('Plasterboard', 0.0125, 0.25, 900, 1000);

const thicknessOf = (layers: readonly { thickness: number }[]): number =>
  Number(layers.reduce((sum, { thickness }) => sum + thickness, 0).toFixed(4));

const built = (kind: 'wall' | 'slab', name: string, layers: ReturnType<typeof layer>[]): Plain => ({
  kind,
  name,
  thickness: thicknessOf(layers),
  layers,
});

/** Constructions to begin with, by what they are for. */
export const usualConstructions: Record<SurfaceRole, readonly Plain[]> = {
  outerWall: [
    built('wall', 'Bricks with 160 mm of wool outside', [render, wool(0.16), bricks(0.24), plaster]),
    built('wall', 'Concrete with 160 mm of wool outside', [render, wool(0.16), concrete(0.2), plaster]),
    built('wall', 'Solid bricks, 365 mm', [render, bricks(0.365), plaster]),
  ],
  innerWall: [
    built('wall', 'Inner bricks, 115 mm', [plaster, bricks(0.115), plaster]),
    built('wall', 'Light partition', [board, wool(0.075), board]),
  ],
  floor: [
    built('slab', 'Concrete floor with screed', [concrete(0.25), foam(0.03), screed]),
    built('slab', 'Ground floor with 100 mm of foam', [foam(0.1), concrete(0.25), screed]),
  ],
  roof: [
    built('slab', 'Flat roof with 200 mm of foam', [foam(0.2), concrete(0.25), plaster]),
    built('slab', 'Flat roof with 80 mm of foam', [foam(0.08), concrete(0.25), plaster]),
  ],
  window: [
    { kind: 'glazing', name: 'Window, two panes', uValue: 1.3, gValue: 0.6, transmittance: 0.8 },
    { kind: 'glazing', name: 'Window, three panes', uValue: 0.8, gValue: 0.5, transmittance: 0.7 },
    { kind: 'glazing', name: 'Window, two panes without coating', uValue: 2.8, gValue: 0.76, transmittance: 0.82 },
  ],
  door: [{ kind: 'glazing', name: 'Insulated leaf', uValue: 1.8, gValue: 0, transmittance: 0 }],
};
