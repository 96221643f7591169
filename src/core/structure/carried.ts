import type { ReadModel } from '@/core/handover/model/readModel';
import { borderOf, type Piece } from './derive/borders';
import { Carriers } from './derive/carriers';
import { deriveStructure } from './derive/derive';
import { ringsOf, type Rings } from '@/core/geometry/ringParts';
import { tributaryOf } from './derive/tributary';
import type { V3 } from './vector3';

/** What of the floors an element carries: how much, where, and the border of it. */
export interface Carried {
  element: string;
  kind: 'column' | 'beam' | 'wall';
  /** Square metres. */
  area: number;
  /** Its middle, at the floor's top. */
  at: V3;
  border: Piece[];
}

/** The tributary areas of a model: of each floor which part each element carries. */
export function carriedOf(model: ReadModel): Carried[] {
  const { skeleton, slabs } = deriveStructure(model);
  const carriers = new Carriers(skeleton);
  return slabs.flatMap((slab) => {
    if (slab.ground) return [];
    const found = carriers.of(slab);
    const parts = new Map<number, { pieces: Rings[]; area: number; x: number; y: number }>();
    tributaryOf(
      ringsOf(slab.outline, slab.holes),
      found,
      { span: slab.span, ...(slab.groundFloor ? { overhang: 0 } : {}) },
      {
        take: ({ carrier, area, centre }, piece) => {
          const own = parts.get(carrier) ?? { pieces: [], area: 0, x: 0, y: 0 };
          parts.set(carrier, own);
          own.pieces.push(piece);
          own.area += area;
          own.x += area * centre[0];
          own.y += area * centre[1];
        },
        lose: () => undefined,
      },
    );
    return [...parts].map(([carrier, { pieces, area, x, y }]): Carried => {
      const { element, kind } = skeleton.axes[found[carrier].axis];
      return { element, kind, area, at: [x / area, y / area, slab.z], border: borderOf(pieces) };
    });
  });
}
