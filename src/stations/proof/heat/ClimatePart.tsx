'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { climateOf, type Climate } from '@/core/energy/climate';
import { useSite } from '@/project/useSite';
import { Part } from '@/ui/widgets/Heading';

const rows: [key: keyof Climate, label: string, least: number, most: number][] = [
  ['air', 'Air, \u00b0C', -60, 50],
  ['level', 'Sun on what lies level, W/m\u00b2', 0, 1000],
  ['south', 'on walls to south', 0, 1000],
  ['aside', 'to east and west', 0, 1000],
  ['north', 'to north', 0, 1000],
];

/** The months of the place: those of an invented one, or twelve values of its own a row, typed or pasted. */
export function ClimatePart() {
  const [site, set] = useSite();
  const own = site.climate;
  const shown = climateOf(own, site.annualTemperature);
  return (
    <Part
      title="Months"
      aside={
        own !== undefined && (
          <Button
            size="small"
            variant="text"
            onClick={() => set('Months of the invented place', { climate: undefined })}
          >
            Take the invented ones
          </Button>
        )
      }
    >
      <Box sx={{ color: 'text.secondary', mb: 1.25 }}>
        Twelve values a row, January first, parted by blanks or tabs: a row of a table can be pasted.
      </Box>
      <Box sx={{ display: 'grid', gap: 1.25 }}>
        {rows.map(([key, label, least, most]) => (
          <MonthRow
            key={`${key} ${shown[key].join()}`}
            label={label}
            values={shown[key]}
            limits={[least, most]}
            change={(values) => set(`Months: ${label}`, { climate: { ...own, [key]: values } })}
          />
        ))}
      </Box>
    </Part>
  );
}

interface RowProps {
  label: string;
  values: readonly number[];
  limits: readonly [least: number, most: number];
  change: (values: number[]) => void;
}

/** What is wrong with a row of numbers; null where it is twelve within limits. */
function problemOf(numbers: readonly number[], [least, most]: RowProps['limits']): string | null {
  if (numbers.length !== 12) return `There are ${numbers.length} values; twelve were expected.`;
  const wrong = numbers.find((value) => !(value >= least && value <= most));
  return wrong === undefined
    ? null
    : `${Number.isNaN(wrong) ? 'One is no number' : wrong}: ${least} to ${most} was expected.`;
}

function MonthRow({ label, values, limits, change }: RowProps) {
  const given = values.map((value) => String(Number(value.toFixed(2)))).join(' ');
  const [text, setText] = useState(given);
  // A comma before digits is a decimal one where blanks part the values.
  const numbers = text
    .trim()
    .split(/[\s;]+/)
    .map((word) => Number(word.replace(',', '.')));
  const problem = text === given ? null : problemOf(numbers, limits);
  const take = () => {
    if (text !== given && problem === null) change(numbers);
  };
  return (
    <TextField
      size="small"
      label={label}
      value={text}
      error={problem !== null}
      helperText={problem}
      onChange={({ target }) => setText(target.value)}
      onBlur={take}
      onKeyDown={({ key }) => {
        if (key === 'Enter') take();
        if (key === 'Escape') setText(given);
      }}
      slotProps={{ htmlInput: { className: 'mono', style: { fontSize: 12 } } }}
    />
  );
}
