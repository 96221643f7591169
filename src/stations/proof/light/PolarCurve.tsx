import { curveLinearClosed, lineRadial, max, range, scaleLinear, ticks } from 'd3';
import { radians } from '@/core/geometry/vector';
import { intensityAt, type Direction } from '@/core/lighting/photometry/intensity';
import type { Photometry } from '@/core/lighting/photometry/readIes';

/** Half of the picture, and the radius of its outermost ring, pixels. */
const [half, reach] = [84, 76];
/** The curve is drawn every so many degrees. */
const step = 3;
/** About so many rings. */
const rings = 3;

/** A direction in a plane, by its angle from straight down; to the left it lies in the plane opposite. */
function inPlane(plane: number, angle: number): Direction {
  const [out, up] = [Math.sin(radians(angle)), -Math.cos(radians(angle))];
  return [out * Math.cos(radians(plane)), out * Math.sin(radians(plane)), up];
}

/** The light of a luminaire in its two main planes, candela: along its 0 degree half-plane, and across it, dashed. */
export function PolarCurve({ photometry, name }: { photometry: Photometry; name: string }) {
  const angles = range(-180, 180, step);
  const planes = [0, 90].map((plane) => angles.map((angle) => intensityAt(photometry, inPlane(plane, angle))));
  const most = max(planes.flat()) ?? 0;
  const r = scaleLinear([0, most || 1], [0, reach]);
  // In a radial line zero looks up; light goes down.
  const curve = lineRadial<number>()
    .angle((_, i) => Math.PI - radians(angles[i]))
    .radius((value) => r(value))
    .curve(curveLinearClosed);
  const values = ticks(0, most || 1, rings).filter((value) => value > 0);
  return (
    <svg
      viewBox={`${-half} ${-half} ${2 * half} ${2 * half}`}
      width={2 * half}
      role="img"
      aria-label={`Light of ${name}: ${Math.round(most)} cd at most`}
      style={{ flexShrink: 0 }}
    >
      {values.map((value) => (
        <g key={value}>
          <circle r={r(value)} fill="none" stroke="var(--mui-palette-zf-line)" />
          <text x={3} y={-r(value) + 11} fontSize={9} fill="var(--mui-palette-zf-ink2)">
            {value}
          </text>
        </g>
      ))}
      <path d={`M${-reach} 0H${reach}M0 ${-reach}V${reach}`} stroke="var(--mui-palette-zf-line)" />
      <path
        d={curve(planes[1]) ?? ''}
        fill="none"
        stroke="var(--mui-palette-zf-ink2)"
        strokeWidth={1.5}
        strokeDasharray="4 3"
      />
      <path
        d={curve(planes[0]) ?? ''}
        fill="var(--mui-palette-zf-amber)"
        fillOpacity={0.18}
        stroke="var(--mui-palette-zf-clay)"
        strokeWidth={1.5}
      />
    </svg>
  );
}
