'use client';
import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import TextField from '@mui/material/TextField';
import type { Filter } from './filters';

interface FindRowProps {
  find: string;
  setFind: (text: string) => void;
  filters: readonly { name: Filter; word: string; count: number }[];
  present: Filter;
  setFilter: (filter: Filter) => void;
}

/** Narrows the list by words and by a filter. */
export function FindRow({ find, setFind, filters, present, setFilter }: FindRowProps) {
  return (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', mb: 0.5 }}>
      <TextField
        size="small"
        placeholder="Find by name, mark or size"
        value={find}
        onChange={(event) => setFind(event.target.value)}
        slotProps={{ htmlInput: { 'aria-label': 'Find a candidate' } }}
        sx={{ flex: 1 }}
      />
      <Select
        size="small"
        value={present}
        inputProps={{ 'aria-label': 'Show of these' }}
        onChange={(event) => setFilter(event.target.value as Filter)}
        sx={{ maxWidth: 170 }}
      >
        {filters.map(({ name, word, count }) => (
          <MenuItem key={name} value={name}>
            {word}
            {'\u00a0'}
            <span className="mono">{count}</span>
          </MenuItem>
        ))}
      </Select>
    </Box>
  );
}
