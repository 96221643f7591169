'use client';
import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { ElementKind, Shaped } from '@/core/kinds/element';
import type { Field } from '@/core/kinds/kind';
import { commonOf, fieldsOf } from '@/core/kinds/putRight';
import type { LengthStyle } from '@/core/units/length';
import { LengthField } from './LengthField';
import { NumberField } from './NumberField';

interface Props {
  /** Things of one kind; where they differ under a field it says so. */
  things: readonly Shaped[];
  lengths: LengthStyle;
  /** Values not taken over yet, by the labels of their fields. */
  changes?: ReadonlyMap<string, string | number>;
  set: (label: string, value: string | number) => void;
  /** Further options of choices, by the labels of their fields. */
  more?: ReadonlyMap<string, readonly string[]>;
  /** Whether places are among the fields, where there is one thing only. */
  places?: boolean;
  /** Whether words are taken over with every letter: where nothing is done with them yet. */
  live?: boolean;
}

/** The fields of things of one kind, each by its label. */
export function ShapeFields({ things, lengths, changes, set, more, places = true, live = false }: Props) {
  const [first] = things;
  if (first === undefined) return null;
  const fields = fieldsOf<ElementKind>(first.kind, first.shape).filter(
    ({ end }) => !end || (places && things.length === 1),
  );
  if (fields.length === 0) return null;
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 1, rowGap: 1.75, pt: 0.75, mb: 1 }}>
      {fields.map((field) => {
        const value = changes?.get(field.label) ?? commonOf(things, field.label);
        const label = value === null && things.length > 1 ? `${field.label}, various` : field.label;
        return (
          <OneField
            key={field.label}
            field={field}
            more={more?.get(field.label) ?? []}
            label={label}
            value={value}
            lengths={lengths}
            live={live}
            set={set}
          />
        );
      })}
    </Box>
  );
}

interface One {
  field: Field<ElementKind>;
  more: readonly string[];
  label: string;
  value: string | number | null;
  lengths: LengthStyle;
  live: boolean;
  set: Props['set'];
}

function OneField({ field, more, label, value, lengths, live, set }: One) {
  if (field.kind === 'choice')
    return (
      <TextField
        select
        size="small"
        label={label}
        value={value ?? ''}
        onChange={(event) => set(field.label, event.target.value)}
      >
        {[...new Set([...field.options, ...more])].map((option) => (
          <MenuItem key={option} value={option}>
            {option}
          </MenuItem>
        ))}
      </TextField>
    );
  if (field.kind === 'words') {
    const words = String(value ?? '');
    return (
      <Words key={live ? '' : words} label={label} value={words} live={live} set={(text) => set(field.label, text)} />
    );
  }
  if (field.kind === 'number')
    return (
      <NumberField
        label={field.unit === '' ? label : `${label}, ${field.unit}`}
        value={typeof value === 'number' ? value : null}
        least={field.least}
        most={field.most}
        width="100%"
        change={(number) => number !== null && set(field.label, number)}
      />
    );
  return (
    <LengthField
      label={label}
      value={typeof value === 'number' ? value : null}
      lengths={lengths}
      least={field.least}
      leastWords="That is too small."
      width="100%"
      change={(metres) => set(field.label, metres)}
    />
  );
}

interface WordsProps {
  label: string;
  value: string;
  live: boolean;
  set: (text: string) => void;
}

/** Words are taken once the field is left or Enter is pressed, or with every letter. */
function Words({ label, value, live, set }: WordsProps) {
  const [text, setText] = useState(value);
  const take = () => {
    if (text !== value) set(text);
  };
  return (
    <TextField
      size="small"
      label={label}
      value={text}
      onChange={(event) => {
        setText(event.target.value);
        if (live) set(event.target.value);
      }}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter') take();
        if (event.key === 'Escape') setText(value);
      }}
      slotProps={{ htmlInput: { maxLength: 200 } }}
    />
  );
}
