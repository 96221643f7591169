'use client';
import { elementOf } from '@/core/resolved/elementOf';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useBoard } from '@/board/boardStore';
import type { HeatView, ShownZone } from '@/core/energy/file';
import { boxOf } from '@/core/geometry/boxIndex';
import { useSelected } from '@/project/selected';
import { useModel } from '@/project/useSession';
import { useView } from '@/project/view';
import { Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';

/** So much about a zone is seen, metres. */
const about = 4;

/** The design heat load room by room, with its terms. */
export function ZonesPart({ view: { zones } }: { view: HeatView }) {
  const model = useModel('element', 'level');
  const go = ({ id, level }: ShownZone) => {
    const row = model.element[elementOf(id)];
    if (row?.kind !== 'zone') return;
    useSelected.getState().select([row.id]);
    useView.getState().set({ levelId: level, faceOn: null });
    useBoard.getState().lookAt([...boxOf(row.shape.outline, about)]);
  };
  const sorted = [...zones].sort((a, b) => b.designLoad - a.designLoad);
  return (
    <Part title="Design heat load, room by room">
      <Table
        label="Design heat load"
        heads={[
          'room',
          { text: '\u00b0C', figures: true },
          { text: 'm\u00b2', figures: true },
          { text: 'W/K', figures: true },
          { text: 'air', figures: true },
          { text: 'W', figures: true },
        ]}
      >
        {sorted.map((zone) => (
          <tr key={zone.id}>
            <td>
              <Button
                size="small"
                variant="text"
                sx={{ p: 0, minWidth: 0, minHeight: 0, lineHeight: 'inherit', textAlign: 'left' }}
                onClick={() => go(zone)}
              >
                {zone.name}
              </Button>
            </td>
            <td className="figures">
              {zone.heated ? zone.temperature.toFixed(0) : `(${zone.temperature.toFixed(1)})`}
            </td>
            <td className="figures">{zone.area.toFixed(1)}</td>
            <td className="figures">{zone.transmission.toFixed(1)}</td>
            <td className="figures">{zone.ventilation.toFixed(1)}</td>
            <td className="figures">{zone.heated ? zone.designLoad.toFixed(0) : 'unheated'}</td>
          </tr>
        ))}
      </Table>
      <Box sx={{ color: 'text.secondary', fontSize: 12, mt: 0.75 }}>
        W/K through surfaces over the room&rsquo;s own difference to outside, W/K by air, and the load in watts.
      </Box>
    </Part>
  );
}
