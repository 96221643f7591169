/** A line of fields and buttons over the second view. */
export const headStyle = {
  display: 'flex',
  alignItems: 'center',
  gap: 0.5,
  px: 1,
  minHeight: 40,
  borderBottom: '1px solid var(--mui-palette-divider)',
} as const;
