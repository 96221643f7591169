import { DxfWriter } from '@/core/handover/dxf/dxfWriter';
import type { Point } from '@/core/geometry/vector';
import type { Mark } from './plan';

/** Drawn in millimetres, which the file says. */
const perMetre = 1000;
/** What 32 bits leave beyond is noise: coordinates are written to a thousandth of a millimetre. */
const places = 3;

const scaled = (value: number): number => Number((value * perMetre).toFixed(places));
const at = ([x, y]: Point): Point => [scaled(x), scaled(y)];

/** A plan as a DXF in millimetres, with a layer for each kind of thing. */
export function planDxf(marks: readonly Mark[]): string {
  const layers = [...new Set(marks.map(({ layer }) => layer))].sort();
  const writer = new DxfWriter(
    'mm',
    layers.map((name, i) => ({ name, colour: (i % 6) + 1 })),
  );
  for (const mark of marks) {
    if (mark.shape === 'line')
      writer.polyline(mark.layer, mark.points.map(at), { open: !mark.closed, bulges: mark.bulges });
    else if (mark.shape === 'circle') writer.circle(mark.layer, at(mark.centre), scaled(mark.radius));
    else if (mark.shape === 'arc') writer.arc(mark.layer, at(mark.centre), scaled(mark.radius), mark.from, mark.to);
    else writer.text(mark.layer, at(mark.at), scaled(mark.height), mark.text);
  }
  return writer.finish();
}
