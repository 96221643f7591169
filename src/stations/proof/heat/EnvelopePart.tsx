import Box from '@mui/material/Box';
import { scaleLinear } from 'd3';
import type { HeatView, ShownZone } from '@/core/energy/file';
import { Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';

type Shown = ShownZone['surfaces'][number];

const bridgeWords: Record<ShownZone['bridges'][number]['kind'], string> = {
  roof: 'roof edge',
  between: 'floor edge',
  ground: 'ground edge',
  corner: 'corners',
  opening: 'openings',
};

/** The colour of what lies beyond. */
function shadeOf({ beyond }: Shown): string {
  if (beyond === 'outside') return 'var(--mui-palette-zf-zircon)';
  return beyond === 'ground' ? 'var(--mui-palette-zf-slab)' : 'var(--mui-palette-zf-ink2)';
}

/** How long a side is in plan, metres. */
const sideLength = ({ from, to }: ShownZone['sides'][number]): number => Math.hypot(to[0] - from[0], to[1] - from[1]);

/** The picture's width, and the room between two surfaces, pixels. */
const [wide, gap] = [340, 6];

/** What closes a zone: its surfaces unfolded to scale, with their openings, by what lies beyond, and a table. */
export function EnvelopePart({ zone, view }: { zone: ShownZone; view: HeatView }) {
  const { surfaces, height } = zone;
  const walls = surfaces.filter(({ kind }) => kind === 'wall');
  const level = surfaces.filter(({ kind }) => kind === 'floor' || kind === 'ceiling' || kind === 'roof');
  const lengths = walls.map(({ area }) => area / height);
  const sides = level.map(({ area }) => Math.sqrt(area));
  const rowOf = (sizes: readonly number[]): number => sizes.reduce((sum, size) => sum + size, 0);
  const widest = Math.max(rowOf(lengths), rowOf(sides), 1);
  const room = wide - gap * Math.max(walls.length, level.length);
  const x = scaleLinear([0, widest], [0, room]);
  const tall = x(height);
  const lower = Math.max(0, ...sides.map((side) => x(side)));
  const nameOf = ({ beyond }: Shown): string => view.zones.find(({ id }) => id === beyond)?.name ?? beyond;
  return (
    <Part title={`What closes ${zone.name}`}>
      <svg
        viewBox={`0 0 ${wide} ${tall + lower + 3 * gap}`}
        width="100%"
        role="img"
        aria-label={`${surfaces.length} surfaces of ${zone.name}, to scale`}
      >
        {walls.map((wall, i) => {
          const left = x(rowOf(lengths.slice(0, i))) + gap * i;
          const width = x(lengths[i]);
          const { low, high } = zone.sides[i];
          // To the measure of the areas a side may be longer than by inner faces.
          const across = (metres: number): number => (metres / (sideLength(zone.sides[i]) || 1)) * width;
          const upward = (metres: number): number => (metres / (high - low || 1)) * tall;
          return (
            <g key={i}>
              <rect x={left} width={width} height={tall} fill={shadeOf(wall)} opacity={0.75} />
              {zone.cuts
                .filter(({ side }) => side === i)
                .map((cut, k) => (
                  <rect
                    key={k}
                    x={left + across(cut.along - cut.width / 2)}
                    y={tall - upward(cut.up + cut.height / 2)}
                    width={across(cut.width)}
                    height={upward(cut.height)}
                    fill="var(--mui-palette-zf-board)"
                    stroke="var(--mui-palette-zf-opening)"
                  />
                ))}
            </g>
          );
        })}
        {level.map((surface, i) => (
          <rect
            key={i}
            x={x(rowOf(sides.slice(0, i))) + gap * i}
            y={tall + gap}
            width={x(sides[i])}
            height={x(sides[i])}
            fill={shadeOf(surface)}
            opacity={surface.kind === 'floor' ? 0.45 : 0.75}
          />
        ))}
      </svg>
      <Box sx={{ color: 'text.secondary', fontSize: 12, mb: 1 }}>
        Walls above, floor (light) and ceiling below. Green lies to outside, brown to the ground, grey to another room.
      </Box>
      <Table
        label={`Surfaces of ${zone.name}`}
        heads={[
          'surface',
          'beyond',
          { text: 'net, m\u00b2', figures: true },
          { text: 'U', figures: true },
          { text: 'W/K', figures: true },
        ]}
      >
        {surfaces.map((surface, i) => (
          <tr key={i}>
            <td>
              {surface.kind}
              {surface.tilt === 90 ? ` ${compass(surface.orientation)}` : ''}
            </td>
            <td>{nameOf(surface)}</td>
            <td className="figures">{surface.net.toFixed(2)}</td>
            <td className="figures">{surface.uValue.toFixed(3)}</td>
            <td className="figures">{surface.transmission.toFixed(2)}</td>
          </tr>
        ))}
        {zone.bridges.map(({ kind, length, psi }) => (
          <tr key={kind}>
            <td>bridge, {bridgeWords[kind]}</td>
            <td>{length.toFixed(1)} m</td>
            <td />
            <td className="figures">&psi; {psi.toFixed(2)}</td>
            <td className="figures">{(length * psi).toFixed(2)}</td>
          </tr>
        ))}
      </Table>
    </Part>
  );
}

const winds = ['N', 'NE', 'E', 'SE', 'S', 'SW', 'W', 'NW'];
const compass = (orientation: number): string => winds[Math.round(orientation / 45) % winds.length];
