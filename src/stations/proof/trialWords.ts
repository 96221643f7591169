import { gridCrossings } from '@/core/kinds/gridCrossings';
import type { Model } from '@/core/model/model';
import { pictured, type Pictured } from '@/core/structure/picture';
import type { V3 } from '@/core/structure/vector3';

/** What is drawn of a result, in words. */
export const pictureWords: Record<Pictured, string> = {
  none: 'Nothing',
  model: 'The derived model',
  tributary: 'Tributary areas',
  loads: 'Loads, kN/m and kN',
  my: 'Moments My, kNm',
  vz: 'Shear Vz, kN',
  n: 'Axial N, kN',
  t: 'Torsion T, kNm',
  mz: 'Moments Mz, kNm',
  vy: 'Shear Vy, kN',
  moved: 'Displaced shape',
  supports: 'What supports carry, kN',
};
export const pictureNames: readonly Pictured[] = pictured;

/** Kilonewtons with one place, the thousands set apart by a thin space. */
export function kilonewtons(newtons: number, places = 1): string {
  const [whole, part] = Math.abs(newtons / 1000)
    .toFixed(places)
    .split('.');
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, '\u2009');
  const sign = newtons < 0 && Number(`${whole}.${part ?? 0}`) !== 0 ? '\u2212' : '';
  return `${sign}${grouped}${part === undefined ? '' : `.${part}`}`;
}

/** Places are called by the crossing of grid lines that is nearer than this, metres. */
const nearCrossing = 0.6;

/** Calls places in plan by the grid: "4/B", else by their coordinates. */
export function placeNames(model: Model): (place: V3) => string {
  const crossings = gridCrossings(Array.from(model.ofKind('grid'), ({ shape }) => shape));
  return ([x, y]) => {
    let [best, least] = ['', nearCrossing];
    for (const { name, point } of crossings) {
      const away = Math.hypot(point[0] - x, point[1] - y);
      if (away < least) [best, least] = [name, away];
    }
    return best === '' ? `${x.toFixed(2)}, ${y.toFixed(2)}` : best;
  };
}
