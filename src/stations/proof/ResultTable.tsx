import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useMemo, useState } from 'react';
import { counted } from '@/core/model/counted';
import { useSession } from '@/project/useSession';
import { Part } from '@/ui/widgets/Heading';

/** A row of results: what it is of, and its figures. */
export interface ResultRow {
  key: string;
  name: string;
  figures: number[];
  /** Goes to what it is of. */
  go: () => void;
}

interface ResultTableProps {
  title: string;
  /** What the rows are of, and the figures' heads with their units. */
  head: string;
  heads: readonly string[];
  rows: readonly ResultRow[];
  /** How a figure is written. */
  words: (figure: number) => string;
}

/** More rows than these are not shown at once: a filter leads to the others. */
const mostShown = 40;

/** A table of results, sorted by the size of a figure, filtered by name, copied whole. */
export function ResultTable({ title, head, heads, rows, words }: ResultTableProps) {
  const { tell } = useSession();
  const [by, setBy] = useState(0);
  const [filter, setFilter] = useState('');
  const own = useMemo(() => {
    const wanted = filter.trim().toLowerCase();
    return rows
      .filter(({ name }) => name.toLowerCase().includes(wanted))
      .sort((a, b) => Math.abs(b.figures[by]) - Math.abs(a.figures[by]));
  }, [rows, by, filter]);
  const copy = () => {
    const lines = [[head, ...heads], ...own.map(({ name, figures }) => [name, ...figures.map(words)])];
    const text = lines.map((cells) => cells.join('\t')).join('\n');
    navigator.clipboard.writeText(text).then(
      () => tell({ kind: 'info', text: `${counted(own.length, 'row')} copied, for a spreadsheet.` }),
      () => tell({ kind: 'problem', text: 'The browser does not let this page copy. Allow it, and copy again.' }),
    );
  };
  return (
    <Part
      title={title}
      aside={
        <Button size="small" variant="text" onClick={copy} disabled={own.length === 0}>
          Copy
        </Button>
      }
    >
      <TextField
        size="small"
        placeholder={`Filter by ${head}`}
        value={filter}
        onChange={(event) => setFilter(event.target.value)}
        slotProps={{ htmlInput: { 'aria-label': `${title}: filter` } }}
        sx={{ mb: 0.5, width: '100%' }}
      />
      <Box component="table" aria-label={title} sx={tableStyle}>
        <thead>
          <tr>
            <th scope="col">{head}</th>
            {heads.map((name, i) => (
              <th key={name} scope="col" aria-sort={by === i ? 'descending' : 'none'}>
                <Box component="button" type="button" onClick={() => setBy(i)} sx={headStyle(by === i)}>
                  {name}
                </Box>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {own.slice(0, mostShown).map(({ key, name, figures, go }) => (
            <tr key={key}>
              <td>
                <Box component="button" type="button" onClick={go} sx={nameStyle}>
                  {name}
                </Box>
              </td>
              {figures.map((figure, i) => (
                <td key={heads[i]} className="figures">
                  {words(figure)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Box>
      {own.length > mostShown && (
        <Box sx={{ color: 'text.secondary', fontSize: 12 }}>
          The {mostShown} greatest of {own.length}. Copy has all of them.
        </Box>
      )}
      {own.length === 0 && <Box sx={{ color: 'text.secondary' }}>None of that name.</Box>}
    </Part>
  );
}

const plainButton = { font: 'inherit', border: 0, background: 'none', p: 0, minHeight: 24, cursor: 'pointer' } as const;
const headStyle = (present: boolean) => ({
  ...plainButton,
  fontSize: 12,
  color: present ? 'text.primary' : 'text.secondary',
  fontWeight: present ? 600 : 400,
});
const nameStyle = { ...plainButton, color: 'primary.main', textAlign: 'left' } as const;
const tableStyle = {
  width: '100%',
  borderCollapse: 'collapse',
  '& th': { textAlign: 'right', fontWeight: 400, color: 'text.secondary', fontSize: 12 },
  '& th:first-of-type': { textAlign: 'left' },
  '& th, & td': { pr: 1, borderBottom: '1px solid var(--mui-palette-divider)' },
  '& .figures': { textAlign: 'right', fontFamily: "'Overpass Mono', monospace", whiteSpace: 'nowrap' },
} as const;
