'use client';
import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { ElementKind } from '@/core/kinds/element';
import { beamEnds } from '@/core/tracing/making/beams';
import { drawnAlong } from '@/core/tracing/making/walls';
import { parseSpacings } from '@/core/units/typed';
import { useTracing, type WayName } from '@/project/tracing';
import { useLengths } from '@/project/useSession';
import { LengthField } from '@/ui/widgets/LengthField';
import { NumberField } from '@/ui/widgets/NumberField';

/** Ways that make several at once. */
const counted: readonly WayName[] = ['column.along', 'opening.spaced', 'luminaire.row', 'luminaire.field'];
/** So many at once are a slip. */
const mostAtOnce = 200;

/** What a way of making has to know besides points. */
export function WaySettings({ kind, way }: { kind: ElementKind; way: WayName }) {
  const settings = useTracing();
  const lengths = useLengths();
  const { set } = settings;
  return (
    <Box
      sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 1, rowGap: 1.5, '&:not(:empty)': { pt: 0.5 } }}
    >
      {kind === 'wall' && (
        <Choice
          label="Drawn along"
          options={drawnAlong}
          value={settings.drawnAlong}
          choose={(next) => set({ drawnAlong: next })}
        />
      )}
      {kind === 'beam' && (
        <Choice
          label="Between columns\u2019"
          options={beamEnds}
          value={settings.beamEnds}
          choose={(next) => set({ beamEnds: next })}
        />
      )}
      {counted.includes(way) && (
        <NumberField
          label={way === 'luminaire.field' ? 'In each row' : 'How many'}
          value={settings.count}
          least={1}
          most={mostAtOnce}
          change={(count) => set({ count: Math.round(count ?? 1) })}
        />
      )}
      {way === 'luminaire.field' && (
        <NumberField
          label="Rows"
          value={settings.rows}
          least={1}
          most={mostAtOnce}
          change={(rows) => set({ rows: Math.round(rows ?? 1) })}
        />
      )}
      {(way === 'grid.spacings' || way === 'grid.copy') && (
        <Spacings
          label={way === 'grid.copy' ? 'Spacings' : 'Spacings across'}
          value={settings.across}
          change={(across) => set({ across })}
        />
      )}
      {way === 'grid.spacings' && <Spacings label="Spacings up" value={settings.up} change={(up) => set({ up })} />}
      {kind === 'slab' && way !== 'slab.hole' && (
        <LengthField
          label="Beyond its outline"
          value={settings.edge}
          lengths={lengths}
          width="100%"
          change={(edge) => set({ edge })}
        />
      )}
      {(way === 'zone.region' || way === 'slab.region' || way === 'areaLoad.region') && (
        <LengthField
          label="Closes gaps up to"
          value={settings.gap}
          lengths={lengths}
          least={0}
          width="100%"
          change={(gap) => set({ gap })}
        />
      )}
    </Box>
  );
}

function Choice<T extends string>({
  label,
  options,
  value,
  choose,
}: {
  label: string;
  options: readonly T[];
  value: T;
  choose: (value: T) => void;
}) {
  return (
    <TextField
      select
      size="small"
      label={label}
      value={value}
      onChange={(event) => {
        const next = options.find((option) => option === event.target.value);
        if (next !== undefined) choose(next);
      }}
    >
      {options.map((option) => (
        <MenuItem key={option} value={option}>
          {option}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** A list of spacings such as 3x5.4, 6.15, 4.8; what cannot be read is told under it. */
function Spacings({ label, value, change }: { label: string; value: string; change: (text: string) => void }) {
  const lengths = useLengths();
  const [text, setText] = useState(value);
  const read = text.trim() === '' ? null : parseSpacings(text, lengths);
  const problem = read === null || read.ok ? null : read.message;
  return (
    <TextField
      size="small"
      label={label}
      value={text}
      error={problem !== null}
      helperText={problem}
      sx={{ gridColumn: '1 / -1' }}
      slotProps={{ htmlInput: { className: 'mono', maxLength: 400 } }}
      onChange={(event) => {
        setText(event.target.value);
        change(event.target.value);
      }}
    />
  );
}
