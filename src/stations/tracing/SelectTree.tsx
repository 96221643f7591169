'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import TextField from '@mui/material/TextField';
import { useDeferredValue, useMemo, useState } from 'react';
import { kinds } from '@/core/kinds/kinds';
import { sourceLevel } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import { selectable } from '@/core/tracing/chosen';
import { matching, treeOf, type KindBranch } from '@/core/tracing/sorts';
import { useSelected } from '@/project/selected';
import { useModel } from '@/project/useSession';
import { useView } from '@/project/view';
import { Part } from '@/ui/widgets/Heading';

/** Everything on the level by kind and sort; a click selects a branch, words filter it. */
export function SelectTree() {
  const model = useModel('element', 'level');
  const { levelId: looked } = useView();
  const { select } = useSelected();
  const [filter, setFilter] = useState('');
  const levelId = sourceLevel(model, looked);
  // The model is changed in place: its versions tell one state from another. After an edit the tree may come later.
  const moment = useDeferredValue(`${model.levelVersion(levelId)} ${model.levelVersion(null)}`);
  const { found, tree } = useMemo(() => treeAt(model, levelId, filter, moment), [model, levelId, filter, moment]);
  return (
    <Part title="On this level">
      <Box sx={{ display: 'flex', gap: 0.75, mb: 0.75 }}>
        <TextField
          size="small"
          label="Filter by words"
          value={filter}
          onChange={({ target }) => setFilter(target.value)}
          onKeyDown={({ key }) => key === 'Enter' && select(found.map(({ id }) => id))}
          sx={{ flex: 1 }}
          slotProps={{ htmlInput: { maxLength: 100 } }}
        />
        <Button
          size="small"
          variant="outlined"
          disabled={found.length === 0}
          onClick={() => select(found.map(({ id }) => id))}
        >
          Select {found.length}
        </Button>
      </Box>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {tree.map((branch) => (
          <Branch key={branch.kind} branch={branch} open={filter.trim() !== ''} />
        ))}
      </Box>
      {tree.length === 0 && (
        <Box sx={{ color: 'text.secondary' }}>
          {filter.trim() === '' ? 'Nothing is on this level yet.' : 'Nothing on this level matches these words.'}
        </Box>
      )}
    </Part>
  );
}

/** What matches on a level, and its tree. @param _moment tells one state of the model from another */
function treeAt(model: Model, levelId: string | null, filter: string, _moment: string) {
  const found = matching(selectable(model, levelId), filter);
  return { found, tree: treeOf(found) };
}

function Branch({ branch, open }: { branch: KindBranch; open: boolean }) {
  const { select } = useSelected();
  const [unfolded, setUnfolded] = useState(false);
  const shown = (open || unfolded) && branch.sorts.length > 0;
  const [, many] = kinds[branch.kind].names;
  return (
    <Box component="li">
      <Box sx={{ display: 'flex', alignItems: 'center' }}>
        <ButtonBase
          aria-label={`${shown ? 'Fold' : 'Unfold'} ${many}`}
          aria-expanded={shown}
          disabled={branch.sorts.length === 0}
          onClick={() => setUnfolded(!unfolded)}
          sx={{ width: 24, height: 26, visibility: branch.sorts.length === 0 ? 'hidden' : 'visible' }}
        >
          {shown ? '\u2212' : '+'}
        </ButtonBase>
        <Row words={many} count={branch.ids.length} choose={() => select(branch.ids)} />
      </Box>
      {shown && (
        <Box component="ul" sx={{ listStyle: 'none', m: 0, pl: 3 }}>
          {branch.sorts.map(({ words, ids }) => (
            <li key={words}>
              <Row words={words || 'others'} count={ids.length} choose={() => select(ids)} />
            </li>
          ))}
        </Box>
      )}
    </Box>
  );
}

function Row({ words, count, choose }: { words: string; count: number; choose: () => void }) {
  return (
    <ButtonBase
      onClick={choose}
      sx={{ flex: 1, width: '100%', minHeight: 26, px: 0.5, display: 'flex', justifyContent: 'space-between' }}
    >
      <span>{words}</span>
      <span className="mono">{count}</span>
    </ButtonBase>
  );
}
