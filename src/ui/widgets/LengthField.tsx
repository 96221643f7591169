'use client';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { formatLength, parseLength, type LengthStyle } from '@/core/units/length';

interface Field {
  label: string;
  /** Metres. */
  value: number | null;
  lengths: LengthStyle;
  /** Gets what was typed once it is left or Enter is pressed, where it is a length within the limits. */
  change: (metres: number) => void;
  least?: number;
  /** Said of a length below the least. */
  leastWords?: string;
  width?: number | string;
}

/** A length to be typed in any unit, for example 3.75 m or 12' 6 1/2"; what cannot be read stays with a sentence. */
export function LengthField(field: Field) {
  const shown = field.value === null ? '' : formatLength(field.value, field.lengths);
  // Another value, or another way to show it, is another field.
  return <Typed key={shown} {...field} shown={shown} />;
}

function Typed({
  label,
  value,
  lengths,
  change,
  least = -Infinity,
  leastWords = 'The length is too small.',
  width = 128,
  shown,
}: Field & { shown: string }) {
  const [text, setText] = useState(shown);
  const parsed = text.trim() === '' ? null : parseLength(text, lengths);
  let problem;
  if (parsed === null) problem = null;
  else if (!parsed.ok) problem = parsed.message;
  else if (parsed.value < least) problem = leastWords;
  else problem = null;

  const take = () => {
    // What was only looked at is not rounded to what is shown.
    if (text === shown || parsed === null || !parsed.ok || problem !== null) return;
    if (value === null || Math.abs(parsed.value - value) > 1e-12) change(parsed.value);
  };
  return (
    <TextField
      size="small"
      label={label}
      value={text}
      error={problem !== null}
      helperText={problem}
      sx={{ width: problem === null ? width : '100%' }}
      slotProps={{ htmlInput: { className: 'mono' } }}
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
