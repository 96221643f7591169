import { elementOf } from '@/core/resolved/elementOf';
import type { ElementRow } from '@/core/kinds/element';
import { outdoorReflectance, outdoorTarget } from '@/core/kinds/outdoorUse';
import type { LightTrial, LitArea, LitZone } from '@/core/lighting/light';
import { targetOf, type Target } from '@/core/lighting/targets';
import type { Model } from '@/core/model/model';

/** An area with what its use asks of it. */
export interface AreaRow {
  area: LitArea;
  room: LitZone | undefined;
  target: Target | null;
  met: boolean;
  /** How bright a surface outside is that throws its light back evenly, cd/m2; null where that is not known. */
  luminance: number | null;
}

/** Of what throws back a share of its light evenly to all sides (Lambert). */
function luminanceOf(element: ElementRow | undefined, mean: number): number | null {
  const share = element?.kind === 'outdoor' ? outdoorReflectance(element.shape) : null;
  return share === null ? null : (share * mean) / Math.PI;
}

function targetFor(element: ElementRow | undefined): Target | null {
  if (element?.kind === 'zone') return targetOf(element.shape.use);
  return element?.kind === 'outdoor' ? outdoorTarget(element.shape) : null;
}

/** What an area is called: its room, or the surface outside that it lies on. */
export function nameOfArea({ area, room }: AreaRow, model: Model): string {
  const element = model.element[elementOf(area.id)];
  if (room !== undefined) return room.name;
  return element !== undefined && 'name' in element.shape && element.shape.name !== ''
    ? element.shape.name
    : 'outdoors';
}

/** Areas against what their use asks, the worst first. */
export function areaRows({ areas, rooms }: LightTrial, model: Model): AreaRow[] {
  const rows = areas.map((area): AreaRow => {
    const room = rooms.find(({ zone }) => zone === area.zone);
    const element = model.element[elementOf(area.zone ?? area.id)];
    const target = targetFor(element);
    const met = target === null || (area.mean >= target.lux && area.uniformity >= target.uniformity);
    return { area, room, target, met, luminance: luminanceOf(element, area.mean) };
  });
  const share = ({ area, target }: AreaRow): number => (target === null ? Infinity : area.mean / target.lux);
  return rows.sort((a, b) => share(a) - share(b));
}
