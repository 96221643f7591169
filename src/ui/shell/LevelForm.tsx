'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { valibotResolver } from '@hookform/resolvers/valibot';
import { useForm } from 'react-hook-form';
import * as v from 'valibot';
import { belowGround } from '@/core/model/levels';
import { levelRow, type LevelRow } from '@/core/model/state';
import { formatLength, parseLength, type LengthStyle } from '@/core/units/length';

/** A typed length in metres. */
const typedLength = (lengths: LengthStyle) =>
  v.pipe(
    v.string(),
    v.rawTransform<string, number>(({ dataset, addIssue, NEVER }) => {
      const parsed = parseLength(dataset.value, lengths);
      if (parsed.ok) return parsed.value;
      addIssue({ message: parsed.message });
      return NEVER;
    }),
  );

interface Form {
  level: LevelRow;
  lengths: LengthStyle;
  levels: LevelRow[];
  done: () => void;
  change: (level: LevelRow, shift: boolean) => void;
  more: () => void;
}

/** Name, elevation and height of a level, beside the ladder. */
export function LevelForm({ level, lengths, levels, done, change, more }: Form) {
  const [shift, setShift] = useState(true);
  const others = levels.filter((other) => other.id !== level.id);
  // With those beyond shifted along, only what lies towards the ground can be in the way.
  const schema = v.object({
    name: v.pipe(
      levelRow.entries.name,
      v.check(
        (name) => !others.some((other) => other.name.toLowerCase() === name.toLowerCase()),
        'Another level has this name.',
      ),
    ),
    elevation: v.pipe(
      typedLength(lengths),
      v.check(
        (elevation) =>
          !others.some(
            (other) =>
              Math.abs(other.elevation - elevation) < 0.001 &&
              !(shift && (belowGround(level) ? other.elevation < level.elevation : other.elevation > level.elevation)),
          ),
        'Another level stands at this elevation.',
      ),
    ),
    height: v.pipe(typedLength(lengths), v.gtValue(0, 'A height is more than zero.')),
  });
  const shown = {
    name: level.name,
    elevation: formatLength(level.elevation, lengths),
    height: formatLength(level.height, lengths),
  };
  const {
    register,
    handleSubmit,
    getValues,
    formState: { errors },
  } = useForm({ resolver: valibotResolver(schema), defaultValues: shown });
  const field = (name: 'name' | 'elevation' | 'height', label: string) => (
    <TextField
      size="small"
      label={label}
      error={errors[name] !== undefined}
      helperText={errors[name]?.message}
      {...register(name)}
    />
  );
  const keep = handleSubmit(({ name, elevation, height }) => {
    // What was not touched is not rounded to what is shown.
    const typed = getValues() as unknown as typeof shown;
    change(
      {
        ...level,
        name,
        elevation: typed.elevation === shown.elevation ? level.elevation : elevation,
        height: typed.height === shown.height ? level.height : height,
      },
      shift,
    );
    done();
  });
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(event) => void keep(event)}
      sx={{ display: 'flex', flexDirection: 'column', gap: 1.5, p: 2, width: 260 }}
    >
      {field('name', 'Name')}
      {field('elevation', 'Elevation')}
      {field('height', 'Height to next')}
      <FormControlLabel
        control={<Switch size="small" checked={shift} onChange={(_, on) => setShift(on)} />}
        label={belowGround(level) ? 'Shift the levels below along' : 'Shift the levels above along'}
        sx={{ m: 0, gap: 0.75, '& .MuiFormControlLabel-label': { fontSize: 13 } }}
      />
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button type="submit" variant="contained">
          Apply
        </Button>
        <Button variant="text" onClick={done}>
          Cancel
        </Button>
        <Button
          variant="text"
          sx={{ ml: 'auto' }}
          onClick={() => {
            done();
            more();
          }}
        >
          More
        </Button>
      </Box>
    </Box>
  );
}
