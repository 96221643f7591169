import type { HeatView } from '@/core/energy/file';
import { EnvelopeTable } from '@/stations/proof/heat/BuildingPart';
import { Table } from '@/ui/widgets/Table';
import { Chapter, TakenForGranted } from './Chapter';
import { figures } from './figures';

/** The trial of heat on paper: the load room by room, the envelope, and what was taken for granted. */
export function HeatReport({ view }: { view: HeatView }) {
  const { zones, building, assumed } = view;
  return (
    <>
      <Chapter title="Heat: the load room by room">
        <Table
          label="Heat load"
          heads={['room', ...figures('\u00b0C', 'm\u00b2', 'm\u00b3', 'surfaces, W/K', 'air, W/K', 'load, W')]}
        >
          {zones.map(({ id, name, temperature, area, volume, transmission, ventilation, designLoad }) => (
            <tr key={id}>
              <td>{name}</td>
              <td className="figures">{temperature.toFixed(1)}</td>
              <td className="figures">{area.toFixed(1)}</td>
              <td className="figures">{volume.toFixed(1)}</td>
              <td className="figures">{transmission.toFixed(1)}</td>
              <td className="figures">{ventilation.toFixed(1)}</td>
              <td className="figures">{designLoad.toFixed(0)}</td>
            </tr>
          ))}
          <tr>
            <td>
              <b>The building</b>
            </td>
            <td className="figures" />
            <td className="figures">{zones.reduce((sum, { area }) => sum + area, 0).toFixed(1)}</td>
            <td className="figures">{zones.reduce((sum, { volume }) => sum + volume, 0).toFixed(1)}</td>
            <td className="figures">{building.transmission.toFixed(1)}</td>
            <td className="figures">{building.ventilation.toFixed(1)}</td>
            <td className="figures">{building.designLoad.toFixed(0)}</td>
          </tr>
        </Table>
        <p>In a year it needs {building.heating.toFixed(0)} kWh, in the months of an invented place.</p>
      </Chapter>
      <EnvelopeTable view={view} />
      <TakenForGranted trial="Heat" assumed={assumed} />
    </>
  );
}
