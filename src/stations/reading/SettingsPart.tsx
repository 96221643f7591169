'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { ReactNode } from 'react';
import { degrees, radians } from '@/core/geometry/vector';
import { put } from '@/core/model/edits';
import { defaultSettings, usualModule, type ReadingSettings } from '@/core/patterns/settings';
import type { LengthUnit } from '@/core/units/length';
import { projectRowOf } from '@/project/projectRow';
import { useModel, useCommit, useLengths } from '@/project/useSession';
import { settingsOf } from '@/project/readings';
import { Part } from '@/ui/widgets/Heading';
import { LengthField } from '@/ui/widgets/LengthField';
import { NumberField } from '@/ui/widgets/NumberField';
import { RoleMark } from '@/ui/widgets/RoleMark';

/** What reading takes for granted of each role, and how exact it is, for the whole project. */
export function SettingsPart({ unit }: { unit: LengthUnit }) {
  const commit = useCommit();
  const lengths = useLengths();
  const settings = settingsOf(useModel('project'));
  const change = (reading: ReadingSettings | null, label: string) =>
    void commit((now) => ({
      label,
      changes: [put('project', { ...projectRowOf(now), reading })],
    }));
  const length = <G extends keyof ReadingSettings>(
    group: G,
    key: keyof ReadingSettings[G] & string,
    label: string,
    least: number,
  ) => (
    <LengthField
      key={label}
      label={label}
      value={(settings[group] as unknown as Record<string, number>)[key]}
      lengths={lengths}
      least={least}
      leastWords="That is too small."
      width="100%"
      change={(metres) =>
        change({ ...settings, [group]: { ...settings[group], [key]: metres } }, `Reading: ${label.toLowerCase()}`)
      }
    />
  );
  const { exact } = settings;
  const setExact = (part: Partial<typeof exact>, label: string) =>
    change({ ...settings, exact: { ...exact, ...part } }, `Reading: ${label}`);
  return (
    <>
      <Box sx={{ color: 'text.secondary', mb: 1.5 }}>
        Where a drawing does not say, reading takes these. It reads again at every change; decisions already taken stay.
      </Box>
      <Group title="Walls" mark={<RoleMark role="wall" />}>
        {length('wall', 'least', 'Thinnest wall', 0.01)}
        {length('wall', 'most', 'Thickest wall', 0.01)}
      </Group>
      <Group title="Columns" mark={<RoleMark role="column" />}>
        {length('column', 'least', 'Smallest side', 0.01)}
        {length('column', 'most', 'Largest side', 0.01)}
      </Group>
      <Group title="Beams" mark={<RoleMark role="beam" />}>
        {length('beam', 'least', 'Narrowest beam', 0.01)}
        {length('beam', 'most', 'Widest beam', 0.01)}
        {length('beam', 'depth', 'Depth without a mark', 0.01)}
        <TextField
          select
          size="small"
          label="First number of a size"
          value={settings.beam.first}
          onChange={({ target }) =>
            change(
              { ...settings, beam: { ...settings.beam, first: target.value === 'depth' ? 'depth' : 'width' } },
              `Reading: first number is the ${target.value}`,
            )
          }
        >
          <MenuItem value="width">width</MenuItem>
          <MenuItem value="depth">depth</MenuItem>
        </TextField>
      </Group>
      <Group title="Doors and windows" mark={<RoleMark role="door" />}>
        {length('door', 'height', 'Door height', 0.1)}
        {length('window', 'sill', 'Window sill', 0)}
        <LengthField
          label="Window head"
          value={settings.window.sill + settings.window.height}
          lengths={lengths}
          least={settings.window.sill + 0.1}
          leastWords="The head lies above the sill."
          width="100%"
          change={(head) =>
            change(
              { ...settings, window: { ...settings.window, height: Number((head - settings.window.sill).toFixed(6)) } },
              'Reading: window head',
            )
          }
        />
      </Group>
      <Group title="Slabs" mark={<RoleMark role="slab" />}>
        {length('slab', 'thickness', 'Slab thickness', 0.01)}
        {length('slab', 'edge', 'Edge beyond outer faces', -5)}
      </Group>
      <Group title="Zones and outdoor surfaces" mark={<RoleMark role="zone" />}>
        <NumberField
          label={'Smallest zone, m\u00b2'}
          value={settings.zone.least}
          least={0}
          most={1000}
          change={(least) => change({ ...settings, zone: { least: least ?? 0 } }, 'Reading: smallest zone')}
        />
        {length('outdoor', 'height', 'Outdoor height', 0)}
      </Group>
      <Group title="Exactness">
        {length('exact', 'gap', 'Gaps closed up to', 0)}
        {length('exact', 'crossing', 'On a crossing within', 0)}
        <LengthField
          label="Sizes rounded to"
          value={exact.module ?? usualModule(unit)}
          lengths={lengths}
          least={0.0001}
          leastWords="That is too small."
          width="100%"
          change={(module) => setExact({ module }, 'sizes rounded')}
        />
        <NumberField
          label={'Straightened within, \u00b0'}
          value={Number(degrees(exact.offAxis).toFixed(3))}
          least={0}
          most={5}
          change={(angle) => setExact({ offAxis: radians(angle ?? 0) }, 'straightened')}
        />
      </Group>
      <Button
        variant="text"
        disabled={JSON.stringify(settings) === JSON.stringify(defaultSettings)}
        onClick={() => change(null, 'Reading as by itself')}
      >
        As the program does by itself
      </Button>
    </>
  );
}

function Group({ title, mark, children }: { title: string; mark?: ReactNode; children: ReactNode }) {
  return (
    <Part title={title} aside={mark}>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 1, rowGap: 1.75, pt: 0.75 }}>
        {children}
      </Box>
    </Part>
  );
}
