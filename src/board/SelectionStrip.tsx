'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { groupBy } from '@/core/groupBy';
import type { ElementOf, ElementRow, ElementKind } from '@/core/kinds/element';
import { kinds } from '@/core/kinds/kinds';
import { removeElements } from '@/core/tracing/removed';
import { calledOf } from '@/core/tracing/words';
import { useSelected } from '@/project/selected';
import { useModel, useCommit, useMayEdit } from '@/project/useSession';

/** What is selected, by kind; a kind leaves the others out, and what is selected can be deleted. */
export function SelectionStrip() {
  const model = useModel('element');
  const commit = useCommit();
  const mayEdit = useMayEdit();
  const { ids, select } = useSelected();
  const elements = [...ids].flatMap((id) => model.element[id] ?? []);
  if (elements.length === 0) return null;
  const groups = [...groupBy(elements, ({ kind }) => kind)];
  return (
    <Box component="section" aria-label="Selection" sx={stripStyle}>
      {elements.length === 1 ? (
        <Box component="span" sx={{ px: 0.5, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis' }}>
          {factsOf(elements[0])}
        </Box>
      ) : (
        groups.map(([kind, members]) => (
          <Button
            key={kind}
            variant="text"
            title={groups.length > 1 ? `Select only the ${kinds[kind].names[1]}` : undefined}
            onClick={() => select(members.map(({ id }) => id))}
          >
            <span className="figures">{members.length}</span>&nbsp;{kinds[kind].names[members.length === 1 ? 0 : 1]}
          </Button>
        ))
      )}
      {mayEdit && (
        <Button variant="outlined" onClick={() => void commit((now) => removeElements(now, ids))}>
          Delete
        </Button>
      )}
      <Button variant="text" onClick={() => select([])}>
        Clear
      </Button>
    </Box>
  );
}

const wordsOf = <K extends ElementKind>({ kind, shape }: Pick<ElementOf<K>, 'kind' | 'shape'>): string => {
  const { size, facts } = kinds[kind];
  return [calledOf({ kind, shape }), facts(shape) || size(shape)].join(': ');
};

const factsOf = (element: ElementRow): string => wordsOf(element);

const stripStyle = {
  position: 'absolute',
  // Below the buttons in the corners.
  left: 10,
  right: 10,
  top: 48,
  mx: 'auto',
  width: 'fit-content',
  maxWidth: 'calc(100% - 20px)',
  minHeight: 34,
  display: 'flex',
  alignItems: 'center',
  gap: 0.5,
  px: 1,
  py: 0.25,
  border: '1px solid var(--mui-palette-zf-zircon)',
  borderRadius: '5px',
  background: 'var(--mui-palette-zf-panel)',
  fontSize: 13,
  whiteSpace: 'nowrap',
} as const;
