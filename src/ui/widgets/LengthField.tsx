'use client';
import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import { formatLength, parseLength, type DisplayUnit } from '@/core/units/length';

/** A length that can be typed in any unit; it is taken on Enter or when the field is left. */
export function LengthField({ label, metres, unit, check, take }: { label: string; metres: number; unit: DisplayUnit; check?: (metres: number) => string | null; take: (metres: number) => void }) {
  const [text, setText] = useState(formatLength(metres, unit));
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => { setText(formatLength(metres, unit)); setProblem(null); }, [metres, unit]);
  const finish = () => {
    const parsed = parseLength(text, unit);
    const wrong = parsed.ok ? check?.(parsed.value) ?? null : parsed.message;
    setProblem(wrong);
    if (parsed.ok && wrong === null && Math.abs(parsed.value - metres) > 1e-9) take(parsed.value);
  };
  return (
    <TextField
      label={label} size="small" value={text} error={problem !== null} helperText={problem} onChange={(event) => setText(event.target.value)} onBlur={finish}
      onKeyDown={(event) => { if (event.key === 'Enter') finish(); if (event.key === 'Escape') { setText(formatLength(metres, unit)); setProblem(null); } }}
      slotProps={{ htmlInput: { className: 'mono' } }}
    />
  );
}
