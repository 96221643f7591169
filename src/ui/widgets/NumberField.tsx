'use client';
import TextField from '@mui/material/TextField';
import { useState } from 'react';

interface Field {
  label: string;
  value: number | null;
  least: number;
  most: number;
  /** May be left empty. */ empty?: boolean;
  change: (value: number | null) => void;
  width?: number | string;
}

/** A plain number to be typed, within limits; taken once it is left or Enter is pressed. */
export function NumberField(field: Field) {
  return <Typed key={field.value ?? ''} {...field} />;
}

function Typed({ label, value, least, most, empty = false, change, width = '100%' }: Field) {
  const shown = value === null ? '' : String(value);
  const [text, setText] = useState(shown);
  const trimmed = text.trim().replace(',', '.');
  const number = trimmed === '' ? null : Number(trimmed);
  let problem;
  if (number === null) {
    if (empty) problem = null;
    else problem = 'A number is missing.';
  } else if (!Number.isFinite(number)) problem = `"${text.trim()}" is no number.`;
  else if (number < least || number > most) problem = `Between ${least} and ${most}.`;
  else problem = null;

  const take = () => {
    if (text !== shown && problem === null) change(number);
  };
  return (
    <TextField
      size="small"
      label={label}
      value={text}
      error={problem !== null && text !== shown}
      helperText={text !== shown ? problem : null}
      sx={{ width }}
      slotProps={{ htmlInput: { className: 'mono', inputMode: 'decimal' } }}
      onChange={(event) => setText(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter') {
          event.preventDefault();
          take();
        }
        if (event.key === 'Escape') setText(shown);
      }}
    />
  );
}
