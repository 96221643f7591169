'use client';
import { elementOf } from '@/core/resolved/elementOf';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import type { HeatView } from '@/core/energy/file';
import { cancelHeat, runHeat, useHeat, useHeatKept } from '@/project/heat';
import { useSelected } from '@/project/selected';
import { useModel, useSession } from '@/project/useSession';
import { Note } from '@/ui/widgets/Heading';
import { Running } from '@/ui/widgets/Running';
import { SetByEditors } from '@/ui/widgets/SetByEditors';
import { TabLine } from '@/ui/widgets/TabLine';
import { EnvelopeTable, SystemsPart } from './heat/BuildingPart';
import { EnvelopePart } from './heat/EnvelopePart';
import { LosersPart } from './heat/LosersPart';
import { MonthsPart } from './heat/MonthsPart';
import { PlacePart } from './heat/PlacePart';
import { ZonesPart } from './heat/ZonesPart';
import { AssumedPart, FoundPart, StaleNote } from './trialParts';

/** What comes of the trial, and what it starts from. */
type Side = 'results' | 'given';
const sides: { name: Side; word: string }[] = [
  { name: 'results', word: 'Results' },
  { name: 'given', word: 'Place and constructions' },
];

/** With so many elements it is calculated before anybody could read how far it is. */
const soonDone = 1000;

/** The trial of heat: what each room needs on the coldest day, and what the building needs month by month. */
export function HeatPart() {
  useHeatKept();
  const session = useSession();
  const now = useModel('element');
  const zones = [...now.ofKind('zone')].length;
  const slow = now.count('element') > soonDone;
  const { view, running, stale, problem } = useHeat();
  const [side, turn] = useState<Side>('results');
  if (zones === 0)
    return (
      <Note kind="plain">No zone has been accepted yet. Read or draw the rooms, then their heat is calculated.</Note>
    );
  return (
    <>
      <TabLine label="Parts of the trial of heat" tabs={sides} present={side} turn={turn} />
      {side === 'given' && (
        <SetByEditors>
          <PlacePart />
        </SetByEditors>
      )}
      {side === 'results' && (
        <>
          {problem !== null && <Note kind="wrong">It could not be calculated: {problem}</Note>}
          {running !== null && (view === null || slow) && (
            <Running share={running} of="the rooms" cancel={cancelHeat} />
          )}
          {running === null && stale && view !== null && <StaleNote />}
          {running === null && (view === null || stale) && (
            <Button variant="contained" sx={{ mb: 1.75 }} onClick={() => void runHeat(session)}>
              {view === null ? 'Calculate' : 'Calculate again'}
            </Button>
          )}
          {view !== null && <Results view={view} />}
        </>
      )}
    </>
  );
}

function Results({ view }: { view: HeatView }) {
  const selected = useSelected(({ ids }) => ids);
  const zone = view.zones.find(({ id }) => selected.has(elementOf(id)));
  return (
    <>
      <Totals view={view} />
      <ZonesPart view={view} />
      {zone === undefined ? (
        <Box sx={{ color: 'text.secondary', mb: 2 }}>Select a zone to see what closes it.</Box>
      ) : (
        <EnvelopePart zone={zone} view={view} />
      )}
      <SystemsPart view={view} />
      <LosersPart view={view} />
      <EnvelopeTable view={view} />
      <MonthsPart view={view} />
      <FoundPart findings={view.findings} />
      <AssumedPart assumed={view.assumed} />
    </>
  );
}

/** The building in a few figures. */
function Totals({ view: { zones, building } }: { view: HeatView }) {
  const area = zones.filter(({ heated }) => heated).reduce((sum, zone) => sum + zone.area, 0);
  const lines = [
    ['Design heat load', `${(building.designLoad / 1000).toFixed(2)} kW`],
    ['for each square metre', `${(building.designLoad / (area || 1)).toFixed(1)} W/m\u00b2`],
    ['Need in a year', `${building.heating.toFixed(0)} kWh`],
    ['for each square metre', `${(building.heating / (area || 1)).toFixed(1)} kWh/m\u00b2`],
  ];
  return (
    <Box
      component="dl"
      aria-label="The building"
      sx={{ m: 0, mb: 1.75, px: 1.5, py: 0.5, background: 'var(--mui-palette-zf-paper)', borderRadius: '5px' }}
    >
      {lines.map(([word, figure], i) => (
        <Box
          key={i}
          sx={{
            display: 'flex',
            justifyContent: 'space-between',
            py: 0.5,
            borderTop: i === 0 ? 0 : '1px solid var(--mui-palette-divider)',
          }}
        >
          <dt>{word}</dt>
          <Box component="dd" className="mono" sx={{ m: 0 }}>
            {figure}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
