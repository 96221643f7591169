import type { LightTrial } from '@/core/lighting/light';
import type { Model } from '@/core/model/model';
import { areaRows, nameOfArea } from '@/stations/proof/light/areaRows';
import { Table } from '@/ui/widgets/Table';
import { Chapter, TakenForGranted } from './Chapter';
import { figures } from './figures';

/** The trial of light on paper: each area against what its use asks, and what was taken for granted. */
export function LightReport({ view, model }: { view: LightTrial; model: Model }) {
  const rows = areaRows(view, model).filter(({ area }) => area.greatest > 0);
  return (
    <>
      <Chapter title="Light: areas against what their use asks">
        <Table
          label="Light"
          heads={['area', ...figures('points', 'mean, lx', 'least, lx', 'even', 'asked, lx', 'W/m\u00b2'), 'met']}
        >
          {rows.map((row) => (
            <tr key={row.area.id}>
              <td>{nameOfArea(row, model)}</td>
              <td className="figures">{row.area.points.length}</td>
              <td className="figures">{row.area.mean.toFixed(0)}</td>
              <td className="figures">{row.area.least.toFixed(0)}</td>
              <td className="figures">{row.area.uniformity.toFixed(2)}</td>
              <td className="figures">{row.target?.lux ?? ''}</td>
              <td className="figures">{row.room === undefined ? '' : (row.room.power / row.room.area).toFixed(1)}</td>
              <td>{row.target !== null && (row.met ? 'yes' : 'no')}</td>
            </tr>
          ))}
        </Table>
      </Chapter>
      <TakenForGranted trial="Light" assumed={view.assumed} />
    </>
  );
}
