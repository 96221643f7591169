'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { LightTrial, LitArea, LitZone } from '@/core/lighting/light';
import { targetOf, type Target } from '@/core/lighting/targets';
import { boxOf } from '@/core/geometry/boxIndex';
import { counted } from '@/core/model/counted';
import type { Model } from '@/core/model/model';
import { useBoard } from '@/board/boardStore';
import { cancelLight, runLight, useLight } from '@/project/light';
import { useSelected } from '@/project/selected';
import { useModel, useSession } from '@/project/useSession';
import { useView } from '@/project/view';
import { Note, Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';
import { AssumedPart, FoundPart, Running, StaleNote } from './trialParts';

/** The trial of light: each room against what its use asks, worst first; the values stand on the board. */
export function LightPart() {
  const { model } = useSession();
  const counts = useModel('element');
  const luminaires = [...counts.ofKind('luminaire')].length;
  const { view, running, stale, problem } = useLight();
  return (
    <>
      {luminaires === 0 && (
        <Note kind="plain">
          No luminaire has been placed yet. Place some at Tracing, one by one, in a row or in a field.
        </Note>
      )}
      {problem !== null && <Note kind="wrong">It could not be calculated: {problem}</Note>}
      {running !== null && <Running share={running} of="the rooms" cancel={cancelLight} />}
      {stale && view !== null && running === null && <StaleNote />}
      <Button
        variant="contained"
        disabled={running !== null || luminaires === 0}
        sx={{ mb: 1.75 }}
        onClick={() => void runLight(model)}
      >
        {view === null ? 'Calculate' : 'Calculate again'}
      </Button>
      {view !== null && <Results view={view} />}
    </>
  );
}

interface Row {
  area: LitArea;
  room: LitZone | undefined;
  target: Target | null;
  met: boolean;
}

/** Elements on levels that repeat another are the other's. */
const elementOf = (id: string): string => id.split('@')[0];

function rowsOf({ areas, rooms }: LightTrial, model: Model): Row[] {
  const rows = areas.map((area): Row => {
    const room = rooms.find(({ zone }) => zone === area.zone);
    const element = area.zone === null ? undefined : model.element[elementOf(area.zone)];
    const target = targetOf(element?.kind === 'zone' ? element.shape.use : undefined);
    const met = target === null || (area.mean >= target.lux && area.uniformity >= target.uniformity);
    return { area, room, target, met };
  });
  const share = ({ area, target }: Row): number => (target === null ? Infinity : area.mean / target.lux);
  return rows.sort((a, b) => share(a) - share(b));
}

function Results({ view }: { view: LightTrial }) {
  const model = useModel('element', 'level');
  const all = rowsOf(view, model);
  const rows = all.filter(({ area }) => area.greatest > 0);
  const dark = all.length - rows.length;
  const short = rows.filter(({ met }) => !met).length;
  const go = ({ area }: Row) => {
    const element = model.element[elementOf(area.zone ?? area.id)];
    if (element === undefined || area.points.length === 0) return;
    useSelected.getState().select([element.id]);
    useView.getState().set({ faceOn: null, ...(element.levelId === null ? {} : { levelId: element.levelId }) });
    useBoard.getState().lookAt([
      ...boxOf(
        area.points.map(([x, y]) => [x, y]),
        1.5,
      ),
    ]);
  };
  return (
    <>
      <Part title="Rooms against what their use asks">
        <Box sx={{ mb: 0.75 }}>
          {counted(rows.length, 'area')}: <b>{short} below</b> what is asked.
          {dark > 0 && ` ${dark} more ${dark === 1 ? 'has' : 'have'} no light at all.`}
        </Box>
        <Table
          label="Illuminance"
          heads={[
            'room',
            { text: 'lx', figures: true },
            { text: 'asked', figures: true },
            { text: 'even', figures: true },
            { text: 'W/m\u00b2', figures: true },
          ]}
        >
          {rows.map((row) => (
            <tr key={row.area.id}>
              <td>
                <Button
                  size="small"
                  variant="text"
                  sx={{ p: 0, minWidth: 0, minHeight: 0, lineHeight: 'inherit', textAlign: 'left' }}
                  onClick={() => go(row)}
                >
                  {row.room?.name ?? 'outdoors'}
                </Button>
              </td>
              <td className="figures" style={row.met ? undefined : { color: 'var(--mui-palette-zf-clay)' }}>
                {row.area.mean.toFixed(0)}
              </td>
              <td className="figures">{row.target === null ? '' : row.target.lux}</td>
              <td className="figures">{row.area.uniformity.toFixed(2)}</td>
              <td className="figures">{row.room === undefined ? '' : (row.room.power / row.room.area).toFixed(1)}</td>
            </tr>
          ))}
        </Table>
        <Box sx={{ color: 'text.secondary', fontSize: 12, mt: 0.75 }}>
          The mean over the grid with dirt and age; even is the least over the mean. Asked by EN 12464-1 for the
          room&rsquo;s use. Values of the level stand on the board.
        </Box>
      </Part>
      <FoundPart findings={view.findings} />
      <AssumedPart assumed={view.assumed} />
    </>
  );
}
