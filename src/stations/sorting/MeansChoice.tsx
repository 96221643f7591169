'use client';
import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { put } from '@/core/model/edits';
import type { LibraryRow, RoleRow } from '@/core/model/state';
import type { Role } from '@/core/sorting/roles';
import { useModel, useCommit } from '@/project/useSession';

/** What of the library a layer with a role can mean. */
const kindOf: Partial<Record<Role, LibraryRow['kind']>> = {
  column: 'section',
  beam: 'section',
  wall: 'wall',
  slab: 'slab',
  window: 'glazing',
};

/** Which section or construction everything read from a layer is made of: one of the library, or what is drawn. */
export function MeansChoice({ row }: { row: RoleRow }) {
  const state = useModel('library');
  const commit = useCommit();
  const kind = row.role === null ? undefined : kindOf[row.role];
  const entries = Object.values(state.library)
    .filter((entry) => entry.kind === kind)
    .sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
  if (kind === undefined || entries.length === 0) return null;
  const choose = (libraryId: string | null) =>
    void commit((now) => ({
      label: libraryId === null ? `${row.layer}: as drawn` : `${row.layer} means ${now.library[libraryId]?.name ?? ''}`,
      changes: [put('role', { ...now.role[row.id], libraryId })],
    }));
  return (
    <Select
      size="small"
      variant="standard"
      disableUnderline
      displayEmpty
      value={entries.some(({ id }) => id === row.libraryId) ? row.libraryId! : ''}
      inputProps={{ 'aria-label': `What ${row.layer} means` }}
      onChange={(event) => choose(event.target.value || null)}
      sx={{ fontSize: 11, '& .MuiSelect-select': { py: 0 } }}
      renderValue={(value) => (
        <Box component="span" sx={{ color: value ? 'text.primary' : 'text.secondary' }}>
          {value ? state.library[value]?.name : 'as drawn'}
        </Box>
      )}
    >
      <MenuItem value="">As drawn</MenuItem>
      {entries.map((entry) => (
        <MenuItem key={entry.id} value={entry.id}>
          {entry.name}
        </MenuItem>
      ))}
    </Select>
  );
}
