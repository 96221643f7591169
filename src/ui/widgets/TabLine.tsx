import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';

/** Parts of a bench to turn to, on one line. */
export function TabLine<T extends string>({
  label,
  tabs,
  present,
  turn,
}: {
  label: string;
  tabs: readonly { name: T; word: string; count?: number }[];
  present: T;
  turn: (name: T) => void;
}) {
  return (
    <Box
      role="tablist"
      aria-label={label}
      sx={{ display: 'flex', gap: 2, borderBottom: '1px solid var(--mui-palette-divider)', mb: 1.25 }}
    >
      {tabs.map(({ name, word, count }) => (
        <ButtonBase
          key={name}
          role="tab"
          aria-selected={present === name}
          onClick={() => turn(name)}
          sx={{
            fontSize: 13,
            py: 0.5,
            borderBottom: '2px solid',
            borderColor: present === name ? 'primary.main' : 'transparent',
            fontWeight: present === name ? 600 : 400,
          }}
        >
          {word}
          {count === undefined ? null : (
            <>
              {'\u00a0'}
              <span className="mono">{count}</span>
            </>
          )}
        </ButtonBase>
      ))}
    </Box>
  );
}
