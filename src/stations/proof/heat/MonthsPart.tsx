import { max, scaleBand, scaleLinear, stack } from 'd3';
import type { HeatView } from '@/core/energy/file';
import { climate } from '@/core/energy/climate';
import { useSite } from '@/project/useSite';
import { Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';

const names = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const [wide, tall] = [340, 120];
const series = ['used', 'heating'] as const;
const shades: Record<(typeof series)[number], string> = {
  used: 'var(--mui-palette-zf-amber)',
  heating: 'var(--mui-palette-zf-clay)',
};

/** What the building loses each month, and what makes up for it: gains that are of use, and heating. */
export function MonthsPart({ view: { zones } }: { view: HeatView }) {
  const [site] = useSite();
  const months = names.map((name, i) => {
    const own = zones.flatMap(({ months: all }) => all[i] ?? []);
    const losses = own.reduce((sum, month) => sum + Math.max(0, month.losses), 0);
    const heating = own.reduce((sum, month) => sum + month.heating, 0);
    const gains = own.reduce((sum, month) => sum + month.gains, 0);
    return { name, losses, gains, heating, used: Math.max(0, losses - heating) };
  });
  const x = scaleBand(names, [0, wide]).padding(0.25);
  const y = scaleLinear([0, max(months, ({ losses }) => losses) ?? 1], [tall, 4]);
  const layers = stack<(typeof months)[number], (typeof series)[number]>().keys(series)(months);
  return (
    <Part title="Month by month">
      <svg
        viewBox={`0 0 ${wide} ${tall + 16}`}
        width="100%"
        role="img"
        aria-label="Heating and used gains of each month"
      >
        {layers.map((layer) =>
          layer.map(([from, to], i) => (
            <rect
              key={`${layer.key} ${names[i]}`}
              x={x(names[i])}
              width={x.bandwidth()}
              y={y(to)}
              height={Math.max(0, y(from) - y(to))}
              fill={shades[layer.key]}
            />
          )),
        )}
        <path d={`M0 ${tall + 0.5}h${wide}`} stroke="var(--mui-palette-zf-line)" />
        {names.map((name) => (
          <text
            key={name}
            x={(x(name) ?? 0) + x.bandwidth() / 2}
            y={tall + 12}
            fontSize={10}
            textAnchor="middle"
            fill="var(--mui-palette-zf-ink2)"
          >
            {name}
          </text>
        ))}
      </svg>
      <Table
        label="Months, kWh"
        heads={[
          'month',
          { text: 'losses', figures: true },
          { text: 'gains', figures: true },
          { text: 'of use', figures: true },
          { text: 'heating', figures: true },
        ]}
      >
        {months.map(({ name, losses, gains, used, heating }) => (
          <tr key={name}>
            <td>{name}</td>
            <td className="figures">{losses.toFixed(0)}</td>
            <td className="figures">{gains.toFixed(0)}</td>
            <td className="figures">{used.toFixed(0)}</td>
            <td className="figures">{heating.toFixed(0)}</td>
          </tr>
        ))}
      </Table>
      <div>
        Red is heating, brown what gains make up for.{' '}
        {site.climate === undefined && `Sun and monthly air of ${climate.name}.`}
      </div>
    </Part>
  );
}
