'use client';
import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { ElementRow } from '@/core/kinds/element';
import { tiedEnds, tiesOf, underRoof, type Tie, type TiedEnd } from '@/core/kinds/tie';
import { levelsUp } from '@/core/model/levels';
import { endWords, tieEnds } from '@/core/tracing/ties';
import { useCommit, useLengths, useModel } from '@/project/useSession';
import { Part } from '@/ui/widgets/Heading';
import { LengthField } from '@/ui/widgets/LengthField';

/** What an end can be tied to beside a level. */
const [free, roof] = ['as its level has it', 'under the roof'] as const;

/** Ends of what is selected, tied to levels or to the roof above; they follow when those change. */
export function TiesPart({ elements }: { elements: readonly ElementRow[] }) {
  const ends = tiedEnds[elements[0].kind] ?? [];
  const alike = elements.every(({ kind }) => kind === elements[0].kind);
  if (!alike || ends.length === 0) return null;
  return (
    <Part title="Its ends">
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 1, rowGap: 1.75, pt: 0.75 }}>
        {ends.map((end) => (
          <TiedEndFields key={end} elements={elements} end={end} />
        ))}
      </Box>
    </Part>
  );
}

/** What the ends of some have in common; undefined where they differ. */
function commonTie(elements: readonly ElementRow[], end: TiedEnd): Tie | null | undefined {
  const ties = elements.map((element) => tiesOf(element)[end] ?? null);
  const [first] = ties;
  return ties.every((one) => JSON.stringify(one) === JSON.stringify(first)) ? first : undefined;
}

function TiedEndFields({ elements, end }: { elements: readonly ElementRow[]; end: TiedEnd }) {
  const model = useModel('element', 'level');
  const commit = useCommit();
  const lengths = useLengths();
  const ids = elements.map(({ id }) => id);
  const tie = commonTie(elements, end);
  const level = typeof tie === 'object' && tie !== null ? tie : null;
  const set = (next: Tie | null) => void commit((now) => tieEnds(now, ids, end, next));
  const choose = (value: string) => {
    if (value === free) set(null);
    else set(value === roof ? 'roof' : { level: value, offset: level?.offset ?? 0 });
  };
  const shown = () => {
    if (tie === undefined) return '';
    if (tie === null) return free;
    return tie === 'roof' ? roof : tie.level;
  };
  return (
    <>
      <TextField
        select
        size="small"
        label={tie === undefined ? `${endWords[end]}, various` : endWords[end]}
        value={shown()}
        sx={level === null ? { gridColumn: '1 / -1' } : undefined}
        onChange={({ target }) => choose(target.value)}
      >
        <MenuItem value={free}>{free}</MenuItem>
        {underRoof(elements[0].kind, end) && <MenuItem value={roof}>{roof}</MenuItem>}
        {levelsUp(model).map(({ id, name }) => (
          <MenuItem key={id} value={id}>
            at {name}
          </MenuItem>
        ))}
      </TextField>
      {level !== null && (
        <LengthField
          label="Above that level"
          value={level.offset}
          lengths={lengths}
          width="100%"
          change={(offset) => set({ ...level, offset })}
        />
      )}
    </>
  );
}
