import { middle } from '@/core/geometry/vector';
import type { Picture } from '@/core/structure/picture';
import { bandsOf } from './contours';
import type { LitArea } from './light';

/** Values, lines of as much light and a tint over areas, as asked for; lines are named where values are not. */
export function lightPicture(
  areas: readonly LitArea[],
  shown: { values: boolean; lines: boolean; tint: boolean },
): Picture {
  const picture: Required<Picture> = { areas: [], lines: [], labels: [], tints: [] };
  for (const area of areas) {
    if (shown.values)
      area.points.forEach(([x, y], i) => picture.labels.push({ at: [x, y], text: area.total[i].toFixed(0) }));
    if (!shown.lines && !shown.tint) continue;
    const bands = bandsOf(area);
    for (const { lux, region, lines } of bands) {
      if (shown.tint) for (const part of region) picture.tints.push({ ...part, share: 1 / bands.length });
      if (!shown.lines) continue;
      for (const line of lines) picture.lines.push(line);
      const named = lines[Math.floor(lines.length / 2)];
      if (!shown.values && named !== undefined)
        picture.labels.push({ at: middle(...named), text: String(Number(lux.toFixed(3))) });
    }
  }
  return picture;
}
