'use client';
import Autocomplete from '@mui/material/Autocomplete';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { unplace, type Placement } from '@/core/datum/placement';
import type { PlacementRow } from '@/core/model/state';
import { entityGroupNames, entityGroups, type Step } from '@/core/underlay/recipe/steps';
import { parseLength, type DisplayUnit } from '@/core/units/length';
import { useBoard } from '@/board/boardStore';
import type { Underlay } from '@/project/underlays';
import { smallLength } from './stepDetail';

interface Fields<S extends Step> {
  step: S;
  change: (step: S) => void;
}

/** The values of a step, by its kind. */
export function StepForm({
  step,
  change,
  underlay,
  placement,
  unit,
}: {
  step: Step;
  change: (step: Step) => void;
  underlay: Underlay;
  placement: PlacementRow;
  unit: DisplayUnit;
}) {
  switch (step.kind) {
    case 'leaveOutKinds':
      return <Kinds step={step} change={change} />;
    case 'leaveOutLayers':
      return (
        <Patterns
          label="Layers"
          options={underlay.layers.map(({ name }) => name)}
          patterns={step.patterns}
          change={(patterns) => change({ ...step, patterns })}
        />
      );
    case 'leaveOutBlocks':
      return (
        <Patterns
          label="Blocks"
          options={underlay.blocks.map(({ name }) => name).filter((name) => name !== '' && !name.startsWith('*'))}
          patterns={step.patterns}
          change={(patterns) => change({ ...step, patterns })}
        />
      );
    case 'region':
      return <Region step={step} change={change} placement={placement} />;
    case 'duplicates':
      return (
        <Length
          label="Tolerance"
          metres={step.tolerance}
          unit={unit}
          change={(tolerance) => change({ ...step, tolerance })}
        />
      );
    case 'closeGaps':
      return (
        <Length
          label="Gaps up to"
          metres={step.tolerance}
          unit={unit}
          change={(tolerance) => change({ ...step, tolerance })}
        />
      );
    case 'curves':
      return (
        <Length
          label="Away from the curve at most"
          metres={step.sagitta}
          unit={unit}
          change={(sagitta) => change({ ...step, sagitta })}
        />
      );
    case 'straighten':
      return <Degrees label="Within degrees" value={step.angle} change={(angle) => change({ ...step, angle })} />;
    case 'chopArcs':
      return (
        <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
          <Select
            size="small"
            value={step.by}
            inputProps={{ 'aria-label': 'Chop by' }}
            onChange={(event) =>
              change(
                event.target.value === 'angle'
                  ? { ...step, by: 'angle', value: 15 }
                  : { ...step, by: 'sagitta', value: 0.005 },
              )
            }
          >
            <MenuItem value="sagitta">by distance from the arc</MenuItem>
            <MenuItem value="angle">by angle</MenuItem>
          </Select>
          {step.by === 'angle' ? (
            <Degrees label="Degrees a piece" value={step.value} change={(value) => change({ ...step, value })} />
          ) : (
            <Length label="At most" metres={step.value} unit={unit} change={(value) => change({ ...step, value })} />
          )}
        </Box>
      );
    default:
      return null;
  }
}

function Kinds({ step, change }: Fields<Extract<Step, { kind: 'leaveOutKinds' }>>) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr' }}>
      {entityGroupNames.map((group) => (
        <FormControlLabel
          key={group}
          label={entityGroups[group].words}
          sx={{ m: 0, '& .MuiFormControlLabel-label': { fontSize: 13 } }}
          control={
            <Checkbox
              size="small"
              sx={{ p: 0.5 }}
              checked={step.groups.includes(group)}
              onChange={(_, on) => {
                const groups = on ? [...step.groups, group] : step.groups.filter((other) => other !== group);
                if (groups.length > 0) change({ ...step, groups });
              }}
            />
          }
        />
      ))}
    </Box>
  );
}

function Patterns({
  label,
  options,
  patterns,
  change,
}: {
  label: string;
  options: string[];
  patterns: string[];
  change: (patterns: string[]) => void;
}) {
  return (
    <Autocomplete
      multiple
      freeSolo
      size="small"
      options={options}
      value={patterns}
      onChange={(_, value) => {
        const next = value.map((text) => text.trim()).filter(Boolean);
        if (next.length > 0) change(next);
      }}
      renderInput={(params) => (
        <TextField {...params} label={label} helperText="Names, or patterns with *; Enter adds one" />
      )}
    />
  );
}

function Region({ step, change, placement }: Fields<Extract<Step, { kind: 'region' }>> & { placement: PlacementRow }) {
  const { tool, setTool } = useBoard();
  const draw = () =>
    setTool({
      kind: 'outline',
      prompt: 'corner of the region',
      take: (corners) =>
        change({
          ...step,
          polygon: corners.map((p) => {
            const [x, y] = unplace(placement as Placement, p);
            return [x, y];
          }),
        }),
    });
  return (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
      <Select
        size="small"
        value={step.keep}
        inputProps={{ 'aria-label': 'Keep' }}
        onChange={(event) => change({ ...step, keep: event.target.value as 'inside' | 'outside' })}
      >
        <MenuItem value="inside">keep what lies inside</MenuItem>
        <MenuItem value="outside">drop what lies inside</MenuItem>
      </Select>
      {tool.kind === 'outline' ? (
        <Button variant="outlined" onClick={() => setTool({ kind: 'look' })}>
          Stop drawing
        </Button>
      ) : (
        <Button variant="outlined" onClick={draw}>
          Draw it on the board
        </Button>
      )}
      <Box sx={{ color: 'text.secondary', width: '100%' }}>
        {step.polygon.length} corners. Two clicks and Enter make a rectangle.
      </Box>
    </Box>
  );
}

function Length({
  label,
  metres,
  unit,
  change,
}: {
  label: string;
  metres: number;
  unit: DisplayUnit;
  change: (metres: number) => void;
}) {
  const [text, setText] = useState(() => smallLength(metres, unit));
  const parsed = parseLength(text, unit);
  let problem;
  if (!parsed.ok) problem = parsed.message;
  else if (parsed.value > 0 && parsed.value <= 1000) problem = null;
  else problem = 'A length of more than zero and at most a kilometre.';

  return (
    <TextField
      size="small"
      label={label}
      value={text}
      error={problem !== null}
      helperText={problem}
      onChange={(event) => {
        setText(event.target.value);
        const next = parseLength(event.target.value, unit);
        if (next.ok && next.value > 0 && next.value <= 1000) change(next.value);
      }}
      sx={{ maxWidth: 220 }}
    />
  );
}

function Degrees({ label, value, change }: { label: string; value: number; change: (value: number) => void }) {
  const [text, setText] = useState(String(value));
  const given = Number(text.replace(',', '.').replace(/\u00b0$/, ''));
  const good = given > 0 && given <= 45;
  return (
    <TextField
      size="small"
      label={label}
      value={text}
      error={!good}
      helperText={good ? null : 'An angle of more than 0 and at most 45 degrees.'}
      onChange={(event) => {
        setText(event.target.value);
        const next = Number(event.target.value.replace(',', '.').replace(/\u00b0$/, ''));
        if (next > 0 && next <= 45) change(next);
      }}
      sx={{ maxWidth: 160 }}
    />
  );
}
