'use client';
import { elementOf } from '@/core/resolved/elementOf';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import type { LightTrial } from '@/core/lighting/light';
import { boxOf } from '@/core/geometry/boxIndex';
import { counted } from '@/core/model/counted';
import { useBoard } from '@/board/boardStore';
import { cancelLight, lightShown, runLight, useLight, type LightShown } from '@/project/light';
import { useSelected } from '@/project/selected';
import { useModel, useSession } from '@/project/useSession';
import { useView } from '@/project/view';
import { Note, Part } from '@/ui/widgets/Heading';
import { Running } from '@/ui/widgets/Running';
import { SetByEditors } from '@/ui/widgets/SetByEditors';
import { TabLine } from '@/ui/widgets/TabLine';
import { Table } from '@/ui/widgets/Table';
import { areaRows, nameOfArea, type AreaRow } from './light/areaRows';
import { PhotometriesPart } from './light/PhotometriesPart';
import { SurfacesPart } from './light/SurfacesPart';
import { WhatIfPart } from './light/WhatIfPart';
import { AssumedPart, FoundPart, StaleNote } from './trialParts';

/** What comes of the trial, and what it starts from. */
type Side = 'results' | 'given';
const sides: { name: Side; word: string }[] = [
  { name: 'results', word: 'Results' },
  { name: 'given', word: 'Luminaires and surfaces' },
];

/** The trial of light: each room against what its use asks, worst first; the values stand on the board. */
export function LightPart() {
  const [side, turn] = useState<Side>('results');
  return (
    <>
      <TabLine label="Parts of the trial of light" tabs={sides} present={side} turn={turn} />
      {side === 'given' ? (
        <>
          <PhotometriesPart />
          <SetByEditors>
            <SurfacesPart />
          </SetByEditors>
        </>
      ) : (
        <Trial />
      )}
    </>
  );
}

function Trial() {
  const session = useSession();
  const now = useModel('element');
  const luminaires = [...now.ofKind('luminaire')].length;
  const { view, running, stale, problem } = useLight();
  const selected = useSelected(({ ids }) => ids);
  const zone = [...now.ofKind('zone')].find(({ id }) => selected.has(id));
  return (
    <>
      {luminaires === 0 && (
        <Note kind="plain">
          No luminaire has been placed yet. Place some at Tracing, one by one, in a row or in a field; or select a zone
          and see here what a field of them would give.
        </Note>
      )}
      {problem !== null && <Note kind="wrong">It could not be calculated: {problem}</Note>}
      {running !== null && <Running share={running} of="the rooms" cancel={cancelLight} />}
      {stale && view !== null && running === null && <StaleNote />}
      <Button
        variant="contained"
        disabled={running !== null || luminaires === 0}
        sx={{ mb: 1.75 }}
        onClick={() => void runLight(session)}
      >
        {view === null ? 'Calculate' : 'Calculate again'}
      </Button>
      {zone !== undefined && <WhatIfPart zone={zone} />}
      {view !== null && <Results view={view} />}
    </>
  );
}

const shownWords: Record<LightShown, string> = { values: 'Values', lines: 'Iso lines', tint: 'Tint' };

/** What of the light lies over the board. */
function ShownOnBoard() {
  const shown = useLight((light) => light.shown);
  return (
    <Box role="group" aria-label="On the board" sx={{ display: 'flex', gap: 0.75, mb: 1.25 }}>
      {lightShown.map((name) => (
        <Button
          key={name}
          size="small"
          variant={shown[name] ? 'contained' : 'outlined'}
          aria-pressed={shown[name]}
          onClick={() => useLight.setState({ shown: { ...shown, [name]: !shown[name] } })}
        >
          {shownWords[name]}
        </Button>
      ))}
    </Box>
  );
}

function Results({ view }: { view: LightTrial }) {
  const model = useModel('element', 'level');
  const all = areaRows(view, model);
  const rows = all.filter(({ area }) => area.greatest > 0);
  const dark = all.length - rows.length;
  const bright = rows.some(({ luminance }) => luminance !== null);
  const short = rows.filter(({ met }) => !met).length;
  const go = ({ area }: AreaRow) => {
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
        <ShownOnBoard />
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
            ...(bright ? [{ text: 'cd/m\u00b2', figures: true as const }] : []),
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
                  {nameOfArea(row, model)}
                </Button>
              </td>
              <td className="figures" style={row.met ? undefined : { color: 'var(--mui-palette-zf-clay)' }}>
                {row.area.mean.toFixed(0)}
              </td>
              <td className="figures">{row.target === null ? '' : row.target.lux}</td>
              <td className="figures">{row.area.uniformity.toFixed(2)}</td>
              <td className="figures">{row.room === undefined ? '' : (row.room.power / row.room.area).toFixed(1)}</td>
              {bright && <td className="figures">{row.luminance?.toFixed(2)}</td>}
            </tr>
          ))}
        </Table>
        <Box sx={{ color: 'text.secondary', fontSize: 12, mt: 0.75 }}>
          The mean over the grid with dirt and age; even is the least over the mean. Asked by EN 12464-1 for the
          room&rsquo;s use, outdoors by EN 12464-2.
        </Box>
      </Part>
      <FoundPart findings={view.findings} />
      <AssumedPart assumed={view.assumed} />
    </>
  );
}
