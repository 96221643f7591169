import { scaleLinear } from 'd3';
import type { HeatView } from '@/core/energy/file';
import { Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';

const words: Record<string, string> = {
  wall: 'Walls',
  window: 'Windows',
  door: 'Doors',
  roof: 'Roofs',
  floor: 'Floors',
  ceiling: 'Ceilings',
  air: 'Air',
};
/** The width of the strips, pixels. */
const wide = 90;

/** What loses most, over the whole building: kinds of surfaces to outside and to the ground, and the air. */
export function LosersPart({ view: { zones, building } }: { view: HeatView }) {
  const sums = new Map<string, { area: number; lost: number }>();
  for (const { surfaces } of zones)
    for (const { kind, net, beyond, transmission } of surfaces) {
      if (beyond !== 'outside' && beyond !== 'ground') continue;
      const key = beyond === 'ground' ? `${words[kind]} to the ground` : words[kind];
      const { area, lost } = sums.get(key) ?? { area: 0, lost: 0 };
      sums.set(key, { area: area + net, lost: lost + transmission });
    }
  const bridges = zones.flatMap((zone) => zone.bridges).reduce((sum, { length, psi }) => sum + length * psi, 0);
  if (bridges !== 0) sums.set('Thermal bridges', { area: 0, lost: bridges });
  const rows = [...sums, ['Air', { area: 0, lost: building.ventilation }] as const].sort(
    ([, a], [, b]) => b.lost - a.lost,
  );
  const all = rows.reduce((sum, [, { lost }]) => sum + lost, 0) || 1;
  const x = scaleLinear([0, Math.max(...rows.map(([, { lost }]) => lost), 1)], [0, wide]);
  return (
    <Part title="What loses most">
      <Table
        label="Losses"
        heads={[
          'what',
          { text: 'm\u00b2', figures: true },
          { text: 'W/K', figures: true },
          { text: 'share', figures: true },
          '',
        ]}
      >
        {rows.map(([word, { area, lost }]) => (
          <tr key={word}>
            <td>{word}</td>
            <td className="figures">{area > 0 ? area.toFixed(1) : ''}</td>
            <td className="figures">{lost.toFixed(1)}</td>
            <td className="figures">{Math.round((100 * lost) / all)} %</td>
            <td>
              <svg viewBox={`0 0 ${wide} 10`} width={wide} height={10} aria-hidden>
                <rect width={Math.max(0, x(lost))} height={10} fill="var(--mui-palette-zf-clay)" />
              </svg>
            </td>
          </tr>
        ))}
      </Table>
    </Part>
  );
}
