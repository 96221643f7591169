'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';

interface Choice<T extends string> {
  name: T;
  words: string;
  disabled?: boolean;
}

/** Some things to choose one of, as buttons in a row that wraps. */
export function Choices<T extends string>({
  label,
  choices,
  chosen,
  choose,
}: {
  label: string;
  choices: readonly Choice<T>[];
  chosen: T | null;
  choose: (name: T) => void;
}) {
  return (
    <Box role="group" aria-label={label} sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, mb: 1.25 }}>
      {choices.map(({ name, words, disabled = false }) => (
        <Button
          key={name}
          size="small"
          variant={chosen === name ? 'contained' : 'outlined'}
          aria-pressed={chosen === name}
          disabled={disabled}
          onClick={() => choose(name)}
        >
          {words}
        </Button>
      ))}
    </Box>
  );
}
