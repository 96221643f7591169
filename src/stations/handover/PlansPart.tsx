'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { paperNames, planLayers, scales, type PlanLayer } from '@/core/exports/sheets/paper';
import type { LevelRow } from '@/core/model/state';
import { Part } from '@/ui/widgets/Heading';
import { Toggles } from '@/ui/widgets/Toggles';

/** The word for what suits the level. */
const fitting = 'what fits';

/** A choice of some, or of what fits. */
function Choice({ label, options, value, choose }: ChoiceProps) {
  return (
    <TextField
      select
      size="small"
      label={label}
      value={value}
      onChange={({ target }) => choose(target.value)}
      sx={{ flex: 1 }}
    >
      <MenuItem value={fitting}>{fitting}</MenuItem>
      {options.map(([name, word]) => (
        <MenuItem key={name} value={name}>
          {word}
        </MenuItem>
      ))}
    </TextField>
  );
}

interface ChoiceProps {
  label: string;
  options: readonly (readonly [name: string, word: string])[];
  value: string;
  choose: (value: string) => void;
}

/** Sheets beside the plans. */
const furtherSheets = [
  { name: 'section-A', words: 'Section A' },
  { name: 'section-B', words: 'Section B' },
  { name: 'storeys', words: 'Storeys' },
] as const;

/** Plans of levels at a true scale, on a sheet of what size and scale is asked for. */
export function PlansPart({
  project,
  levels,
  cut,
}: {
  project: string;
  levels: readonly LevelRow[];
  /** Whether there is something that sections go through. */
  cut: boolean;
}) {
  const [paper, setPaper] = useState(fitting);
  const [scale, setScale] = useState(fitting);
  const [layers, setLayers] = useState<readonly PlanLayer[]>(planLayers);
  const address = (file: string, of: Record<string, string>): string => {
    const asked = new URLSearchParams(of);
    if (paper !== fitting) asked.set('paper', paper);
    if (scale !== fitting) asked.set('scale', scale);
    if (layers.length < planLayers.length) asked.set('layers', layers.join());
    return `/api/projects/${project}/handover/${file}?${asked.toString()}`;
  };
  return (
    <Part title="Plans and sections">
      <Box sx={{ color: 'text.secondary', mb: 1.25 }}>
        At a true scale, with grid, marks, rooms, distances between grid lines, north and a title block: all levels with
        two sections and the storeys over one another as a PDF, or one of them as SVG.
      </Box>
      <Box sx={{ display: 'flex', gap: 1, mb: 1 }}>
        <Choice label="Sheet" options={paperNames.map((name) => [name, name])} value={paper} choose={setPaper} />
        <Choice
          label="Scale"
          options={scales.map((one) => [String(one), `1:${one}`])}
          value={scale}
          choose={setScale}
        />
      </Box>
      <Box sx={{ mb: 1 }}>
        <Toggles
          label="Shown on plans"
          of={planLayers}
          words={(name) => name[0].toUpperCase() + name.slice(1)}
          chosen={layers}
          choose={setLayers}
        />
      </Box>
      <Button variant="contained" href={address('plans.pdf', {})} download sx={{ mb: 1 }}>
        Save PDF
      </Button>
      <Box role="group" aria-label="Plans" sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75 }}>
        {levels.map(({ id, name }) => (
          <Button
            key={id}
            size="small"
            variant="outlined"
            href={address('plan.svg', { level: id })}
            download
            aria-label={`Save the plan of ${name}`}
          >
            {name}
          </Button>
        ))}
        {(cut ? furtherSheets : []).map(({ name, words }) => (
          <Button key={name} size="small" variant="outlined" href={address('plan.svg', { sheet: name })} download>
            {words}
          </Button>
        ))}
      </Box>
    </Part>
  );
}
