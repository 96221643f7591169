import { groupBy } from '@/core/groupBy';
import type { HeatView, ShownZone } from '@/core/energy/file';
import { Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';

type Shown = ShownZone['surfaces'][number];

const beyondWords: Record<string, string> = {
  outside: 'outside',
  ground: 'the ground',
  neighbour: 'a neighbour',
  adiabatic: 'as warm',
};

/** The envelope of the building: what its surfaces are, how large, and what they lose on average. */
export function EnvelopeTable({ view: { zones } }: { view: HeatView }) {
  const all = zones.flatMap(({ surfaces }) => surfaces).filter(({ beyond }) => beyond in beyondWords);
  const rows = [...groupBy(all, ({ kind, beyond }) => `${kind} ${beyond}`).values()].sort(
    (a, b) => lostBy(b) - lostBy(a),
  );
  return (
    <Part title="The building's envelope">
      <Table
        label="Envelope"
        heads={[
          'surfaces',
          'to',
          { text: 'm\u00b2', figures: true },
          { text: 'mean U', figures: true },
          { text: 'W/K', figures: true },
        ]}
      >
        {rows.map((own) => {
          const area = own.reduce((sum, { net }) => sum + net, 0);
          const mean = own.reduce((sum, { net, uValue }) => sum + net * uValue, 0) / (area || 1);
          const [{ kind, beyond }] = own;
          return (
            <tr key={`${kind} ${beyond}`}>
              <td>{kind}s</td>
              <td>{beyondWords[beyond]}</td>
              <td className="figures">{area.toFixed(1)}</td>
              <td className="figures">{mean.toFixed(3)}</td>
              <td className="figures">{lostBy(own).toFixed(1)}</td>
            </tr>
          );
        })}
      </Table>
    </Part>
  );
}

const lostBy = (surfaces: readonly Shown[]): number =>
  surfaces.reduce((sum, { transmission }) => sum + transmission, 0);

/** What each system has to give, where rooms say which one heats them. */
export function SystemsPart({ view: { zones } }: { view: HeatView }) {
  const heated = zones.filter((zone) => zone.heated);
  if (heated.every(({ system }) => system === '')) return null;
  const systems = [...groupBy(heated, ({ system }) => system)].sort(([a], [b]) => a.localeCompare(b, 'en'));
  return (
    <Part title="By system">
      <Table
        label="Systems"
        heads={[
          'system',
          { text: 'rooms', figures: true },
          { text: 'm\u00b2', figures: true },
          { text: 'kW', figures: true },
          { text: 'kWh a year', figures: true },
        ]}
      >
        {systems.map(([name, own]) => (
          <tr key={name}>
            <td>{name || 'none said'}</td>
            <td className="figures">{own.length}</td>
            <td className="figures">{own.reduce((sum, { area }) => sum + area, 0).toFixed(1)}</td>
            <td className="figures">{(own.reduce((sum, { designLoad }) => sum + designLoad, 0) / 1000).toFixed(2)}</td>
            <td className="figures">
              {own
                .reduce((sum, { months }) => sum + months.reduce((all, { heating }) => all + heating, 0), 0)
                .toFixed(0)}
            </td>
          </tr>
        ))}
      </Table>
    </Part>
  );
}
