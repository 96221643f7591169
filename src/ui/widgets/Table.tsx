import Box from '@mui/material/Box';
import type { ReactNode } from 'react';

/** A plain table with hairlines; figures in the monospaced face, to the right. */
export function Table({
  heads,
  children,
  label,
}: {
  heads: (string | { text: string; figures: true })[];
  children: ReactNode;
  label: string;
}) {
  return (
    <Box
      component="table"
      aria-label={label}
      sx={{
        width: '100%',
        borderCollapse: 'collapse',
        '& th': { textAlign: 'left', fontWeight: 400, color: 'text.secondary', fontSize: 12 },
        '& th, & td': { py: 0.5, pr: 1, borderBottom: '1px solid var(--mui-palette-divider)', verticalAlign: 'top' },
        '& .figures': { textAlign: 'right', fontFamily: "'Overpass Mono', monospace", whiteSpace: 'nowrap' },
        '& td:last-child, & th:last-child': { pr: 0 },
      }}
    >
      <thead>
        <tr>
          {heads.map((head) =>
            typeof head === 'string' ? (
              <th key={head} scope="col">
                {head}
              </th>
            ) : (
              <th key={head.text} scope="col" className="figures">
                {head.text}
              </th>
            ),
          )}
        </tr>
      </thead>
      <tbody>{children}</tbody>
    </Box>
  );
}
