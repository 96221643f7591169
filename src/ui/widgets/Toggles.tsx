'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';

/** What is chosen beside others is quieter than what is done. */
const pressed = {
  background: 'var(--mui-palette-zf-zirconSoft)',
  borderColor: 'var(--mui-palette-zf-zircon)',
  color: 'var(--mui-palette-zf-ink)',
};

/** Some things of which any number is chosen, as buttons that stay pressed. */
export function Toggles<T extends string>({
  label,
  of,
  words,
  chosen,
  choose,
}: {
  label: string;
  of: readonly T[];
  words: (name: T) => string;
  chosen: readonly T[];
  choose: (chosen: T[]) => void;
}) {
  return (
    <Box role="group" aria-label={label} sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75 }}>
      {of.map((name) => {
        const on = chosen.includes(name);
        return (
          <Button
            key={name}
            size="small"
            variant="outlined"
            aria-pressed={on}
            sx={on ? pressed : undefined}
            onClick={() => choose(of.filter((one) => (one === name ? !on : chosen.includes(one))))}
          >
            {words(name)}
          </Button>
        );
      })}
    </Box>
  );
}
