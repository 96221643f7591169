import { elementOf } from '@/core/resolved/elementOf';
import type { ElementRow } from '@/core/kinds/element';
import type { LightTrial, LitArea, LitZone } from '@/core/lighting/light';
import { outdoorTargetOf, targetOf, type Target } from '@/core/lighting/targets';
import type { Model } from '@/core/model/model';

/** An area with what its use asks of it. */
export interface AreaRow {
  area: LitArea;
  room: LitZone | undefined;
  target: Target | null;
  met: boolean;
}

function targetFor(element: ElementRow | undefined): Target | null {
  if (element?.kind === 'zone') return targetOf(element.shape.use);
  return element?.kind === 'outdoor' ? outdoorTargetOf(element.shape.use) : null;
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
    const target = targetFor(model.element[elementOf(area.zone ?? area.id)]);
    const met = target === null || (area.mean >= target.lux && area.uniformity >= target.uniformity);
    return { area, room, target, met };
  });
  const share = ({ area, target }: AreaRow): number => (target === null ? Infinity : area.mean / target.lux);
  return rows.sort((a, b) => share(a) - share(b));
}
