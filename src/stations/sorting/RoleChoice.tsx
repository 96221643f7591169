'use client';
import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { roleNames, roles, type Role } from '@/core/sorting/roles';
import { RoleMark } from '@/ui/widgets/RoleMark';

interface Choice {
  label: string;
  /** Undefined asks for one. */
  role: Role | null | undefined;
  /** Whether it is a suggestion. */
  faint?: boolean;
  why?: string;
  /** What no role is called. */
  none?: string;
  choose: (role: Role | null) => void;
}

/** One of the roles, by its mark and its word. */
export function RoleChoice({ label, role, faint = false, why = '', none = 'no role', choose }: Choice) {
  return (
    <Select
      size="small"
      variant="standard"
      disableUnderline
      displayEmpty
      value={role ?? ''}
      inputProps={{ 'aria-label': label }}
      title={why || undefined}
      onChange={(event) => choose((event.target.value || null) as Role | null)}
      sx={{ fontSize: 13, '& .MuiSelect-select': { display: 'flex', alignItems: 'center', gap: 0.75, py: 0.25 } }}
      renderValue={(value) =>
        value ? (
          <>
            <RoleMark role={value as Role} />
            <Box component="span" sx={{ fontStyle: faint ? 'italic' : 'normal' }}>
              {roleNames[value as Role]}
              {faint ? '?' : ''}
            </Box>
          </>
        ) : (
          <Box component="span" sx={{ color: 'text.secondary' }}>
            {role === undefined ? 'set role' : none}
          </Box>
        )
      }
    >
      <MenuItem value="">{none}</MenuItem>
      {roles.map((name) => (
        <MenuItem key={name} value={name} sx={{ gap: 1 }}>
          <RoleMark role={name} />
          {roleNames[name]}
        </MenuItem>
      ))}
    </Select>
  );
}
